"""Reading a print: what a G-code file does, layer by layer, compiled for files of hundreds of megabytes."""
