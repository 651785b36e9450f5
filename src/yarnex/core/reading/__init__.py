"""Files in, documents out: the format is found by content first, then by ending, and read by its own module.

In: paths of files and folders. Out: `Document`s, and for each file that could not be read an UnreadableError
that says why; one bad file never stops the others.
"""

from yarnex.core.reading.files import READABLE, Reading, find_files, read_all, read_document

__all__ = ["READABLE", "Reading", "find_files", "read_all", "read_document"]
