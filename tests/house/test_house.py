"""The rules of the house: imports, lengths of files, words, shipped fonts."""

import ast
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
SOURCE = ROOT / "src" / "yarrow_lane"
MOST_LINES = 400
CORE = (
    "measure",
    "lane",
    "workers",
    "intake",
    "compose",
    "transfer",
    "tone",
    "palette",
    "layers",
    "calendar",
    "easel",
    "check",
    "deliver",
)


def run_linter(config: str, folder: Path) -> subprocess.CompletedProcess:
    path = folder / "contracts.toml"
    path.write_text(config)
    command = [str(Path(sys.executable).with_name("lint-imports")), "--config", str(path), "--no-cache"]
    return subprocess.run(command, capture_output=True, text=True, cwd=folder)


def contracts() -> str:
    text = (ROOT / "pyproject.toml").read_text()
    return text[text.index("[tool.importlinter]") :]


def test_the_import_contracts_hold(tmp_path):
    outcome = run_linter(contracts(), tmp_path)
    assert outcome.returncode == 0, outcome.stdout


@pytest.mark.parametrize(
    ("rule", "broken"),
    [
        # Each rule is bent so that today's lawful imports break it: a rule that cannot fail guards nothing.
        ('    "measure",\n]', None),
        ('forbidden_modules = ["PySide6", "shiboken6"]', 'forbidden_modules = ["pydantic"]'),
        ('"yarrow_lane.demo",\n]\nforbidden_modules = ["sqlite3"]', '"yarrow_lane.store",\n]\nforbidden_modules = ["sqlite3"]'),
    ],
)
def test_each_contract_can_break(tmp_path, rule, broken):
    text = contracts()
    assert rule in text
    if broken is None:  # the floor under everything becomes the roof
        text = text.replace('    "measure",\n]', "]").replace(
            'layers = [\n    "__main__",', 'layers = [\n    "measure",\n    "__main__",'
        )
    else:
        text = text.replace(rule, broken)
    assert run_linter(text, tmp_path).returncode == 1


def test_the_core_runs_where_there_is_no_qt():
    """Every module of the core imports with PySide6 hidden."""
    names = [
        "yarrow_lane." + ".".join(p.relative_to(SOURCE).with_suffix("").parts)
        for room in (*CORE, "commission", "store", "documents", "desk", "demo")
        for p in sorted((SOURCE / room).glob("*.py"))
        if p.name != "__init__.py"
    ]
    hide = "import sys; sys.modules['PySide6'] = None; sys.modules['shiboken6'] = None; import importlib\n"
    code = hide + "\n".join(f"importlib.import_module({n!r})" for n in names)
    outcome = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True)
    assert outcome.returncode == 0, outcome.stderr


def test_files_are_short_and_begin_by_saying_what_they_are():
    for path in sorted(SOURCE.rglob("*.py")):
        text = path.read_text()
        assert text.count("\n") <= MOST_LINES, f"{path} has grown two rooms"
        assert ast.get_docstring(ast.parse(text)), f"{path} does not say what it is"


def test_public_things_of_the_core_are_described():
    for room in CORE:
        for path in (SOURCE / room).rglob("*.py"):
            for node in ast.parse(path.read_text()).body:
                if isinstance(node, ast.FunctionDef | ast.ClassDef) and not node.name.startswith("_"):
                    assert ast.get_docstring(node), f"{path}: {node.name}"


def test_views_hold_no_qt():
    for path in SOURCE.glob("ui/rooms/*/view.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            names = [a.name for a in node.names] if isinstance(node, ast.Import) else []
            names += [node.module or ""] if isinstance(node, ast.ImportFrom) else []
            names = [n for n in names if n != "yarrow_lane.ui.kit.overlays"]  # plain values
            assert not any(n.startswith(("PySide6", "yarrow_lane.ui.kit")) for n in names), path


def test_rooms_of_the_window_do_not_lean_on_each_other_in_circles():
    """A view may borrow words from an earlier door; never the other way."""
    order = ["studio", "intake", "compose", "transfer", "tone", "palette", "layers", "easel", "check", "deliver", "books"]
    for path in SOURCE.glob("ui/rooms/*/*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("yarrow_lane.ui.rooms."):
                other = node.module.split(".")[3]
                assert order.index(other) <= order.index(path.parent.name), f"{path} looks ahead to {other}"


def test_data_tables_say_where_they_come_from():
    for path in SOURCE.rglob("*.csv"):
        assert path.read_text("utf-8").startswith("#"), path


def test_every_dependency_has_its_reason():
    import tomllib

    wanted = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]["dependencies"]
    reasons = (ROOT / "docs" / "dependencies.md").read_text().lower()
    for line in wanted:
        name = line.split(">")[0].split("<")[0].split("=")[0].lower()
        assert f"`{name}`" in reasons, name
