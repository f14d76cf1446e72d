"""What goes on beside requests: alarms watched, nights, messages sent, a restore under way."""
