"""A commission is the rooms' parts together; doors and acts follow from its facts."""
