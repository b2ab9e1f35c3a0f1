"""The API does what its document says: requests made of the document, every check on every answer.

A few requests for each operation here; ``make fuzz`` asks thousands (``DIALBACK_FUZZ``, requests
for each operation).
"""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest
import schemathesis
from hypothesis import HealthCheck, Phase, given, settings
from schemathesis import GenerationMode
from schemathesis.config import SchemathesisConfig

from dialback.web.app import create_app, openapi_document
from tests.browser.driving import demo_file
from tests.conftest import TODAY
from tests.properties import AT_LENGTH

EXAMPLES = AT_LENGTH or 1
CONFIG = SchemathesisConfig.from_path(Path(__file__).parent / "schemathesis.toml")


LAST = (("/api/house/club/remove", "post"), ("/api/accounts", "post"))
"""What empties the house, and what closes it: asked for last."""
LONG_TO_MAKE_UP = "/wave/publish"
"""A body of weeks of drafts: one of them is enough here."""


@pytest.fixture(scope="module")
def api(tmp_path_factory: pytest.TempPathFactory) -> Any:
    data = tmp_path_factory.mktemp("fuzz") / "demo.sqlite"
    data.write_bytes(demo_file(TODAY))
    app = create_app(data, today=lambda: TODAY)
    return schemathesis.openapi.from_wsgi("/api/openapi.json", app, config=CONFIG)


OPERATIONS = sorted(
    (
        (path, method)
        for path, operations in openapi_document()["paths"].items()
        for method in operations
    ),
    key=lambda one: (LAST.index(one) if one in LAST else -1, one),
)


@pytest.mark.parametrize("mode", GenerationMode)
@pytest.mark.parametrize(("path", "method"), OPERATIONS)
def test_what_is_asked_is_answered_as_the_document_says(
    api: Any, path: str, method: str, mode: GenerationMode
) -> None:
    operation = api[path][method]
    if mode is GenerationMode.NEGATIVE and not (operation.body or "{" in path):
        pytest.skip("nothing can be wrong with it")

    examples = 1 if path.endswith(LONG_TO_MAKE_UP) else EXAMPLES

    @settings(
        max_examples=examples,
        deadline=None,
        phases=[Phase.generate],
        database=None,
        suppress_health_check=list(HealthCheck),
    )
    @given(operation.as_strategy(generation_mode=mode))
    def asked(case: schemathesis.Case) -> None:
        case.call_and_validate()

    asked()


def test_the_document_names_what_it_refers_to() -> None:
    document = openapi_document()
    assert "securitySchemes" not in document["components"]
    for operations in document["paths"].values():
        for operation in operations.values():
            for status, response in operation["responses"].items():
                if "$ref" in response:
                    name = response["$ref"].removeprefix("#/components/responses/")
                    response = document["components"]["responses"][name]
                kinds = list(response.get("content", {}))
                assert kinds, (operation["operationId"], status)
                if status[0] in "45":
                    assert kinds == ["application/problem+json"]
