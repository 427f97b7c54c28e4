"""Tests of crawls: the tip as a sight, the table from a few marks, what a wrong guess costs."""
