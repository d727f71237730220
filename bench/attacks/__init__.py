"""Attacks on a studio, with dice that are set: the bench runs them for minutes, the suite a short share."""
