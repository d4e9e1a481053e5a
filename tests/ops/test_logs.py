from pathlib import Path

from brevin.ops.logs import keep_small


def test_a_log_that_grew_becomes_the_older_one_and_its_writer_goes_on(tmp_path: Path) -> None:
    log, small = tmp_path / "web.log", tmp_path / "reader.log"
    small.write_text("little\n")
    with log.open("a") as writer:
        for line in range(300):
            writer.write(f"line {line}\n")
            writer.flush()
            keep_small(tmp_path, most_bytes=1000)
        writer.write("after\n")
    kept = (tmp_path / "web.log.1").read_text() + log.read_text()
    assert kept.splitlines()[-2:] == ["line 299", "after"] and len(kept) <= 2100
    assert [int(line.split()[1]) for line in kept.splitlines()[1:-1]] == list(range(300 - len(kept.splitlines()) + 2, 300)), "nothing of the newest is lost"
    assert small.read_text() == "little\n" and not (tmp_path / "reader.log.1").exists()
    assert (tmp_path / "web.log.1").stat().st_mode & 0o077 == 0
