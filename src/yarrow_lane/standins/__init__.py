"""Small simulated stand-ins for devices and services outside."""
