"""The mechanics of the job, pure: NumPy, SciPy, cachetools and the standard library.

No web, no SQL, no files, no clock. Quantities are SI floats and arrays (m, kg, N, N·m, rad, s);
points are arrays shaped (2, set-ups, samples), components first. Conventions: docs/model.md.
"""
