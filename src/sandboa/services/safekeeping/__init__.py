"""The house kept safe: backups every night, copies put back, a daily check, who came in.

Called by the web application, by its background work and by the command line.
"""
