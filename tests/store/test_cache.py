"""Values kept on disk: one a slot, never an error."""

from yarrow_lane.store.cache import Cache


def test_one_value_a_slot_under_its_key(tmp_path):
    cache = Cache(tmp_path)
    assert not cache.has("slot", "a") and cache.get("slot", "a") is None
    cache.put("slot", "a", b"first")
    assert cache.has("slot", "a") and cache.get("slot", "a") == b"first"
    cache.put("slot", "b", b"second")
    assert not cache.has("slot", "a") and cache.has("slot", "b") and cache.get("slot", "a") is None
    (file,) = (p for p in tmp_path.rglob("*") if p.is_file())
    file.write_bytes(file.read_bytes()[:10])
    assert not cache.has("slot", "b") and cache.get("slot", "b") is None
    file.unlink()
    file.mkdir()
    cache.put("slot", "b", b"third")
    assert not cache.has("slot", "b")
