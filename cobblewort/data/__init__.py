"""The shipped parts, class figures and demo plans, as readable YAML."""
