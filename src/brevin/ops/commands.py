"""Commands that need the data folder."""
def add_to(jobs): pass
