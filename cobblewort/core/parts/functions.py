"""What a kit can be required to do, by the names that parts and requirements use."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

FunctionId = Literal[
    "ethernet",
    "wifi",
    "access_point",
    "mesh_radio",
    "sdr",
    "voice_modem",
    "video_in",
    "video_out",
    "screen",
    "camera",
    "device_port",
    "usb_port",
    "audio_in",
    "audio_out",
    "buttons",
    "gamepad",
    "rtc",
    "climate",
    "relay",
    "storage",
    "memory",
    "vehicle_power",
    "battery",
    "desktop",
    "fan_control",
    "gnss",
    "light",
    "distance",
    "motion",
    "analogue_in",
    "field_bus",
    "antenna",
    "recording",
    "solar",
    "users",
]


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
    "ethernet": Function("Ethernet", "MB/s"),
    "wifi": Function("Wi-Fi"),
    "access_point": Function("a Wi-Fi access point"),
    "mesh_radio": Function("mesh radio"),
    "sdr": Function("an SDR"),
    "voice_modem": Function("a digital-voice modem"),
    "video_in": Function("video input"),
    "video_out": Function("video output"),
    "screen": Function("a screen", "inch"),
    "camera": Function("a camera"),
    "device_port": Function("a USB device port"),
    "usb_port": Function("free USB ports"),
    "audio_in": Function("audio input", "channels"),
    "audio_out": Function("audio output"),
    "buttons": Function("buttons"),
    "gamepad": Function("a gamepad"),
    "rtc": Function("an RTC"),
    "climate": Function("a temperature and humidity sensor"),
    "relay": Function("a relay"),
    "storage": Function("capacity", "GB", added=True),
    "memory": Function("memory", "GB"),
    "vehicle_power": Function("vehicle power"),
    "battery": Function("a battery", "Wh", added=True),
    "desktop": Function("a desktop in the image"),
    "fan_control": Function("fan control"),
    "gnss": Function("a GNSS receiver"),
    "light": Function("a light sensor"),
    "distance": Function("a distance sensor"),
    "motion": Function("a motion sensor"),
    "analogue_in": Function("analogue inputs"),
    "field_bus": Function("RS-485 / CAN bus"),
    "antenna": Function("an antenna"),
    "recording": Function("recording time", "days", rate_unit="MB per hour"),
    "users": Function("simultaneous users", "users"),
    "solar": Function("a solar panel", "Wp", added=True),
}

CONDITIONS: dict[str, str] = {
    "unattended": "runs unattended",
    "power_cut": "survives a power cut",
    "silent": "is silent",
    "children": "within reach of children",
    "remote_access": "reachable from the internet",
    "without_mains": "runs without mains for",
    "in_vehicle": "survives vibration in a vehicle",
    "disk_failure": "survives a disk failure",
    "enough_processor": "processor speed, compared with a mid-range board",
}
CONDITION_UNITS: dict[str, str] = {"without_mains": "h", "enough_processor": "%"}
"""Of the conditions that need a value."""
LIMITS: dict[str, tuple[str, str]] = {
    "noise_dba": ("noise at most", "dB(A)"),
    "longest_mm": ("length at most", "mm"),
    "mass_g": ("mass at most", "g"),
}
