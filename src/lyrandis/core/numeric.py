"""The arrays the mechanics and the inference work on."""

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
"""Numbers in double precision, of any shape."""
Complex = npt.NDArray[np.complex128]
"""A spectrum."""
Steps = npt.NDArray[np.intp]
"""Places in another array."""
