"""The command line: one thin module a command, which turns arguments into core calls and results into output."""
