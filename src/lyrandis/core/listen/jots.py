"""What is typed of what is heard: nothing yet that a page does not do better.

A recording is brought on the page: there is nothing to type of it.
"""

from lyrandis.core.hearing.table import Word

PLAIN_WORDS = ""
WORDS: tuple[Word, ...] = ()
