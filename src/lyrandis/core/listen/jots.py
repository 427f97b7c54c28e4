"""The jot line's words for what is heard: none yet that a page does not do better.

A recording is brought on the page: there is nothing to type of it.
"""

from lyrandis.core.stage_spec import Word

WORDS: tuple[Word, ...] = ()
