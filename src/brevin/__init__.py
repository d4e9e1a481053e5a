"""Brevin reads a beginner's breath, posture and hold from half a minute of film."""

__version__ = "0.1.0"
