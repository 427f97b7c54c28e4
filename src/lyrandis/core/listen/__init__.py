"""Listen: what the ear of a microphone tells of a bow. Pure functions of samples and rate."""
