"""Instruments of the bench: one small interface, simulated stand-ins, and a serial line."""
