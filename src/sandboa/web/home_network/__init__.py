"""How phones find the house: its names, its certificate, and the code a new one scans."""
