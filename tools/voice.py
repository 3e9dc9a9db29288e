"""Renders what a voice asks at a scale, as over an outdoor speaker: ``python -m tools.voice``.

Needs espeak-ng, sox and lame. What it writes into ``web/public/voice`` is kept: nobody else does.
"""

import subprocess
from pathlib import Path

from noxel.core.weigh.trouble import ASKED_AT_A_WEIGHBRIDGE, asked_over_the_speaker
from tools.stage import a_folder

VOICE = Path("web/public/voice")
SPEAKER = "highpass 350 lowpass 3200 overdrive 6 norm -6 pad 0.3 0.5"
ENGINES = ["synth", "brownnoise", "lowpass", "500", "vol", "0.06"]


def main() -> None:
    """Render every recording."""
    VOICE.mkdir(exist_ok=True)
    voices = {"en-us": asked_over_the_speaker(first=True), "en-gb": ASKED_AT_A_WEIGHBRIDGE}
    with a_folder() as folder:
        plain, spoken, noise, mixed = (str(folder / f"{name}.wav") for name in "abcd")
        for voice, lines in voices.items():
            for line in lines:
                for call in (
                    ["espeak-ng", "-v", voice, "-s", "150", "-w", plain, line.what],
                    ["sox", plain, "-r", "16000", "-c", "1", spoken, *SPEAKER.split()],
                    ["sox", spoken, noise, *ENGINES],
                    ["sox", "-m", spoken, noise, mixed, "norm", "-3"],
                    ["lame", "--quiet", "-b", "24", mixed, str(VOICE / f"{line.sound}.mp3")],
                ):
                    subprocess.run(call, check=True)


if __name__ == "__main__":
    main()
