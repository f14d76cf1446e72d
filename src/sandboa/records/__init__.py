"""What is remembered: peewee models, migrations and queries. Nothing else touches SQL."""
