"""Fur in patches that are painted in one go, and the order in which tips fall over what is below."""
