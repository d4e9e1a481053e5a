"""What every table shares: its database, and columns for long and plain documents."""

import json

from peewee import Model, TextField

from brevin.store.database import db


class LongTextField(TextField):
    """Reports are larger than the 64 KiB of a plain text."""

    field_type = "LONGTEXT"


class JsonField(TextField):
    """Plain JSON values; a document that nobody searches in."""

    def db_value(self, value: object) -> str | None:
        return None if value is None else json.dumps(value, allow_nan=False)

    def python_value(self, value: str | None) -> object:
        return None if value is None else json.loads(value)


class Base(Model):
    class Meta:
        database = db
        legacy_table_names = False
        table_settings = ["DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci"]
