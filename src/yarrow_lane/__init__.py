"""Yarrow Lane: a studio for a painter who takes commissions for portraits of pets and people."""

__version__ = "0.1.0"
