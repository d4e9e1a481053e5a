"""The routes of one feature. They are described only for who writes the API's description: it takes a third of the server's start, and no request needs it."""

import os

from flask_openapi3 import APIBlueprint

DESCRIBED = "BREVIN_DESCRIBED"  # in the environment of the program that writes the description (``web/describe.py``)


def routes_of(name: str, import_name: str, *, below: str) -> APIBlueprint:
    """A feature's routes. name: by which ``web/permissions.py`` knows it; below: the address they begin with."""
    return APIBlueprint(name, import_name, url_prefix=below, doc_ui=DESCRIBED in os.environ)
