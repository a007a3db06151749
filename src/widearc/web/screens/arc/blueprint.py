"""Where Arc's addresses are gathered."""

from flask import Blueprint

blueprint = Blueprint("arc", __name__, url_prefix="/arc")
