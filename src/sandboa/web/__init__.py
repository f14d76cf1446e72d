"""The application over HTTP."""
