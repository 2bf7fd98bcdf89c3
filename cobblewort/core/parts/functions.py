"""What a kit can be asked to do, by the names that parts and needs use."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

FunctionId = Literal[
    "ethernet", "wifi", "access_point", "mesh_radio", "sdr", "voice_modem",
    "video_in", "video_out", "screen", "camera", "device_port", "usb_port", "audio_in",
    "audio_out", "buttons", "gamepad", "rtc", "climate", "relay", "storage", "memory",
    "vehicle_power", "battery", "desktop", "fan_control", "gnss", "light", "distance", "motion",
    "analogue_in", "field_bus", "antenna", "recording", "solar",
    "users",
]  # fmt: skip


@dataclass(slots=True, frozen=True)
class Function:
    """How a function is called; the unit of its amount, where it has one.

    `added` amounts of several parts count together; otherwise the best one counts. `rate_unit` is
    that of the rate from which its amount follows, where one is asked for besides.
    """

    label: str
    unit: str = ""
    added: bool = False
    rate_unit: str = ""


FUNCTIONS: dict[FunctionId, Function] = {
    "ethernet": Function("wired network", "MB/s"),
    "wifi": Function("Wi-Fi"),
    "access_point": Function("Wi-Fi that can be an access point"),
    "mesh_radio": Function("mesh radio"),
    "sdr": Function("a software radio"),
    "voice_modem": Function("a digital-voice modem"),
    "video_in": Function("video in"),
    "video_out": Function("video out"),
    "screen": Function("a screen of its own"),
    "camera": Function("a camera"),
    "device_port": Function("a USB port that can act as a device"),
    "usb_port": Function("free USB sockets"),
    "audio_in": Function("sound in", "ch"),
    "audio_out": Function("sound out"),
    "buttons": Function("buttons"),
    "gamepad": Function("a gamepad"),
    "rtc": Function("a clock that keeps time without power"),
    "climate": Function("temperature and humidity"),
    "relay": Function("a relay"),
    "storage": Function("room for data", "GB", added=True),
    "memory": Function("memory", "GB"),
    "vehicle_power": Function("power from a vehicle"),
    "battery": Function("a battery", "Wh", added=True),
    "desktop": Function("a desktop in the image"),
    "fan_control": Function("a fan that follows the heat"),
    "gnss": Function("its own position"),
    "light": Function("a measure of light"),
    "distance": Function("a measure of distance"),
    "motion": Function("a measure of motion"),
    "analogue_in": Function("analogue inputs"),
    "field_bus": Function("a field bus"),
    "antenna": Function("an aerial of its own"),
    "recording": Function("room for a recording", "days", rate_unit="MB an hour"),
    "users": Function("memory for people at once", "people"),
    "solar": Function("a solar panel", "Wp", added=True),
}

CONDITIONS: dict[str, str] = {
    "unattended": "runs by itself",
    "power_cut": "survives a pulled plug",
    "silent": "makes no sound",
    "children": "may be touched by children",
    "remote_access": "is reached from outside",
    "without_mains": "runs so many hours without mains",
    "in_vehicle": "rides in a vehicle",
    "disk_failure": "goes on when a disk fails",
}
LIMITS: dict[str, tuple[str, str]] = {
    "noise_dba": ("not louder than", "dB(A)"),
    "longest_mm": ("not longer than", "mm"),
    "mass_g": ("not heavier than", "g"),
}
