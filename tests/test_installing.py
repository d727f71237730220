"""Installed as an application: files in the user's folders, valid by the desktop's own validators, and a wheel that runs."""

import configparser
import os
import re
import shutil
import subprocess
import sys
import venv
from pathlib import Path
from xml.etree import ElementTree

import pytest
from PIL import Image

from yarrow_lane import __version__
from yarrow_lane.installing import APP_ID
from yarrow_lane.installing.__main__ import main
from yarrow_lane.installing.entries import InstallTrouble, Places, put_in, quoted, take_out, targets

TOP = Path(__file__).parents[1]


@pytest.fixture
def home(tmp_path):
    return tmp_path / "data home"


def test_every_file_goes_to_its_place_and_out_again(home, tmp_path):
    other = home / "applications" / "another.desktop"
    other.parent.mkdir(parents=True)
    other.write_text("[Desktop Entry]")
    written = put_in(Places(home, tmp_path / "own programs" / "yarrow-lane"))
    assert len(written) == len(set(written)) == 10 and all(p.is_file() for p in written)
    assert put_in(Places(home, tmp_path / "yarrow-lane")) == written, "a second time writes over the first"
    for path in written:
        if path.suffix == ".png":
            size = int(path.parts[-3].split("x")[0])
            with Image.open(path) as icon:
                assert (
                    icon.size == (size, size)
                    and icon.mode == "RGBA"
                    and icon.getextrema()[3][1] == 255
                    and icon.getpixel((0, 0))[3] < 30
                )
    assert set(take_out(home)) == set(written)
    assert [p for p in home.rglob("*") if p.is_file()] == [other], "nothing but ours is removed"
    assert take_out(home) == ()


def test_the_entry_starts_the_program_whatever_its_folder_is_called(home):
    program = Path("/home/a painter/$tudio `1`/100 %/yarrow-lane")
    put_in(Places(home, program))
    parser = configparser.RawConfigParser()
    parser.optionxform = str
    parser.read(home / "applications" / f"{APP_ID}.desktop", "utf-8")
    entry = dict(parser["Desktop Entry"])
    assert entry["Type"] == "Application" and entry["Icon"] == APP_ID and entry["Terminal"] == "false"
    # Read back as the specification says: the string's escapes first, then the quoted argument's, then field codes.
    text = entry["Exec"].replace("\\\\", "\\")
    assert text[0] == text[-1] == '"'
    assert re.sub(r"\\(.)", r"\1", text[1:-1]).replace("%%", "%") == str(program)
    assert quoted(Path("/usr/bin/yarrow-lane")) == '"/usr/bin/yarrow-lane"'


def test_the_metadata_name_this_program_and_this_version(home):
    put_in(Places(home, Path("/usr/bin/yarrow-lane")))
    root = ElementTree.parse(home / "metainfo" / f"{APP_ID}.metainfo.xml").getroot()
    assert root.findtext("id") == APP_ID and root.findtext("launchable") == f"{APP_ID}.desktop"
    assert root.find("releases/release").get("version") == __version__


@pytest.mark.parametrize(
    ("validator", "ending"),
    [(("desktop-file-validate",), ".desktop"), (("appstreamcli", "validate", "--no-net"), ".metainfo.xml")],
)
def test_the_desktops_own_validators_find_nothing(home, tmp_path, validator, ending):
    if shutil.which(validator[0]) is None:
        pytest.skip(f"{validator[0]} is not on this machine")
    put_in(Places(home, tmp_path / "yarrow-lane"))
    path = next(p for _, p in targets(home) if p.name.endswith(ending))
    found = subprocess.run([*validator, str(path)], capture_output=True, text=True)
    assert found.returncode == 0, found.stdout + found.stderr


def test_what_cannot_be_written_is_one_sentence(home, monkeypatch, capsys):
    home.parent.mkdir(exist_ok=True)
    home.write_text("a file where a folder should be")
    with pytest.raises(InstallTrouble) as found:
        put_in(Places(home, Path("/usr/bin/yarrow-lane")))
    assert str(home) in found.value.sentence
    monkeypatch.setenv("XDG_DATA_HOME", str(home))
    assert main(["put-in", "/usr/bin/yarrow-lane"]) == 1 and str(home) in capsys.readouterr().err


def test_the_data_home_is_the_one_told_or_the_usual_one(tmp_path, monkeypatch, capsys):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    assert main(["put-in", "/usr/bin/yarrow-lane"]) == 0 and str(tmp_path) in capsys.readouterr().out
    monkeypatch.setenv("XDG_DATA_HOME", "no/absolute/path")
    monkeypatch.setenv("HOME", str(tmp_path / "painter"))
    assert main(["put-in", "/usr/bin/yarrow-lane"]) == 0
    assert (tmp_path / "painter" / ".local" / "share" / "applications" / f"{APP_ID}.desktop").is_file()
    with pytest.raises(SystemExit):
        main(["put-in"])


def test_a_wheel_builds_and_runs_from_a_clean_environment(tmp_path):
    """The packages it stands on are lent to the clean environment; the program itself comes from the wheel alone."""
    source = tmp_path / "source"
    shutil.copytree(TOP / "src", source / "src", ignore=shutil.ignore_patterns("*.egg-info", "__pycache__"))
    for name in ("pyproject.toml", "README.md"):
        shutil.copy(TOP / name, source / name)
    pip = [sys.executable, "-m", "pip", "-q", "--disable-pip-version-check"]
    subprocess.run(
        [*pip, "wheel", "--no-build-isolation", "--no-deps", "--no-index", "-w", str(tmp_path), str(source)], check=True
    )
    (wheel,) = tmp_path.glob("yarrow_lane-*.whl")
    clean = tmp_path / "clean"
    venv.create(clean)
    (packages,) = (clean / "lib").glob("python*/site-packages")
    subprocess.run([*pip, "install", "--no-deps", "--no-index", "--target", str(packages), str(wheel)], check=True)
    lent = next(p for p in sys.path if p.endswith("site-packages"))
    (packages / "lent.pth").write_text(lent)
    picture = tmp_path / "window.png"
    run = [
        str(clean / "bin" / "python"),
        "-I",
        "-m",
        "yarrow_lane",
        "--studio",
        str(tmp_path / "studio"),
        "--shot",
        str(picture),
    ]
    surroundings = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    done = subprocess.run(run, capture_output=True, text=True, env=surroundings, cwd=tmp_path, timeout=120)
    assert done.returncode == 0, done.stderr
    with Image.open(picture) as shot:
        assert shot.size == (1280, 800) and len(shot.convert("L").getcolors(1 << 16)) > 20, "a window with words in it"
    where = "import yarrow_lane; print(yarrow_lane.__file__)"
    asked = subprocess.run([run[0], "-I", "-c", where], capture_output=True, text=True, check=True, cwd=tmp_path)
    assert asked.stdout.strip().startswith(str(packages)), "from the wheel, not from here"
