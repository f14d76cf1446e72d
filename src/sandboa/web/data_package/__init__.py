"""The whole house: where it lies, and as a data package out of it and into an empty one."""
