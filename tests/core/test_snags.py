# ruff: noqa: E501  (a sentence stands on one line)
"""What each kind of snag says, word for word, and that each of its fixes works."""

import math
from typing import Any
from unittest import TestCase

from bridle.core.evaluate import KINDS, evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.snag import Snag, fill
from tests.following import Following
from tests.provoked import PROVOKE, fixes_work, provoked

# The finding, then each fix with what it will change, as they stand on the sheet. Numbers are worked out by hand below,
# or follow from the plan that provokes them.
SAID: dict[str, tuple[str, ...]] = {
    "holds-contradict": (
        "These pegs cannot all hold: 1 h with one frame every 9 s (400 frames) against 30 s of clip at 25 a second (750 frames).",
        "Pull the peg of the shoot length · Shoot length no longer held. 750 frames, one every 9 s, 1 h 52 min 30 s on site, 30 s of clip.",
        "Pull the peg of the interval · Interval no longer held. 750 frames, one every 4.8 s, 1 h on site, 30 s of clip.",
        "Pull the peg of the playback rate · Playback rate no longer held. 400 frames, one every 9 s, 1 h on site, 30 s of clip.",
        "Pull the peg of the clip length · Clip length no longer held. 400 frames, one every 9 s, 1 h on site, 16 s of clip.",
    ),
    "holds-too-few": (
        "Still free: shoot length, frames, playback rate, clip length and speed-up.",
        "Hold the playback rate at 25 a second and the clip length at 20 s · 500 frames, one every 9 s, 1 h 15 min on site, 20 s of clip.",
    ),
    "too-many-frames": (
        "18 000 000 frames are more than one shoot can hold here.",
        "Hold 100 000 frames · Interval no longer held. 100 000 frames, one every 1 min 30 s, 104 d 4 h on site, 1 h 6 min 40 s of clip.",
    ),
    "beyond-range": (
        "The playback rate would come to 144000 a second.",
        "Hold the playback rate at 25 a second · Shoot length no longer held. 13 frames, one every 0.5 s, 6.5 s on site, 0.52 s of clip.",
    ),
    "interval-off-step": (
        "An interval of 10.3 s cannot be dialled.",
        "Dial 10 s · 360 frames, one every 10 s, 1 h on site, 14.4 s of clip.",
        "Dial 10.5 s · 342 frames, one every 10.5 s, 59 min 51 s on site, 13.7 s of clip.",
    ),
    "rate-unusual": (
        "21.176 a second is not a rate that editing programs know.",
        "Play at 23.976 a second · Clip length no longer held. 360 frames, one every 10 s, 1 h on site, 15 s of clip.",
    ),
    "out-of-travel": (
        "At its end the slide would stand at 950 mm; it reaches from 0 mm to 900 mm.",
        "Stop the slide at 900 mm · The slide stands 50 mm beside where it was put; the framing there changes.",
    ),
    "ease-scaled": (
        "Easing 300 frames in and 100 frames out is longer than the move of 359 frames.",
        "Ease 269 frames in and 89 frames out · The move stays as drawn now.",
    ),
    "interval-too-short": (
        "One beat needs 12.7 s and a margin, but the interval is 10 s.",
        "Beat of 14.1 s · 255 frames, one every 14.1 s, 59 min 56 s on site, 10.2 s of clip.",
        "Expose 8 s · 0.6 stops darker: open the aperture or raise ISO by as much. The interval stays.",
    ),
    "axis-too-slow": (
        "The slide needs 12.3 s for its longest step; the interval is 8 s.",
        "Beat of 14.7 s · 4 frames, one every 14.7 s, 58.8 s on site, 0.16 s of clip.",
        "End the slide at 564 mm · The slide travels 336 mm less; the interval stays.",
    ),
    "blend-shortened": (
        "Blending over 160 frames is longer than the segments around frame 61 allow.",
        "Blend over 120 frames · Every change of the interval takes as many frames as this one.",
    ),
    "segment-off-step": (
        "An interval of 5.1 s cannot be dialled.",
        "Dial 5 s · The segment has 60 frames then.",
        "Dial 5.5 s · The segment has 55 frames then.",
    ),
    "event-outside": (
        "High tide at 14:20:00 falls outside the shoot, which runs from 06:10:00 to 07:10:00.",
        "Start at 13:40:00 · The shoot keeps its length; high tide falls two thirds into it.",
        "Do without high tide · It is no longer on the clock of this shoot.",
    ),
    "handles-too-long": (
        "Handles of 200 frames and 160 frames leave nothing of 360 frames to move in.",
        "Handles of 36 frames and 36 frames · 288 frames are left to move in.",
    ),
    "hardly-changes": (
        "By the trial, the subject moves 4.5 px over the whole shoot: 0.075 % of the picture.",
        "Watch for 3 d 8 h · 28 800 frames, one every 10 s, 3 d 8 h on site, 19 min 12 s of clip.",
    ),
    "movie-cannot-be-culled": (
        "10 % of the frames are spare, but a clip made in the camera cannot be culled.",
        "Take stills · Every frame stays a file of its own: to be repaired, culled and read at any rate.",
    ),
    "video-too-long": (
        "Sped-up video of 1 h is a lot to record.",
        "Take stills · Every frame stays a file of its own: to be repaired, culled and read at any rate.",
    ),
    "noise-reduction-costs": (
        "Noise reduction in the camera takes 3 s of every 10 s.",
        "Switch it off · The shortest interval becomes 4.1 s. Take ten dark frames when the shoot is over.",
    ),
    "stack-too-near": (
        "A focus stack from 20 mm cannot be taken with a focal length of 35 mm.",
        "Stack from 140 mm to 210 mm · Closest focus of an ordinary lens; measure what yours can do.",
    ),
    "smear-visible": (
        "Moving on while the shutter is open smears the picture by 5.79 px.",
        "Shoot, move, shoot · Nothing moves while the shutter is open; each frame needs the time to settle.",
        "Expose 1.3 s · 1.6 stops darker, and soft at most: open the aperture or raise ISO by as much.",
    ),
    "smear-unknown": (
        "How far the picture smears while the shutter is open is not known: nothing near is on the drawing.",
        "Put a mark 3000 mm off the rail · A guess: put it where the nearest thing of the picture really is, and the smear is told for it.",
    ),
    "sky-needs-a-place": (
        "The start is tied to 40 min before sunset, and nobody has said where on earth the camera stands.",
        "Go by the hour · It stays where it is written down, whatever the sky does.",
    ),
    "sky-gives-no-hour": (
        "The start is tied to astronomical dusk, and that does not come on this day at this place.",
        "Go by the hour · It stays where it is written down, whatever the sky does.",
    ),
    "locked-out-of-latitude": (
        "With one exposure for all, 144 of 270 frames cannot be mended: they come out up to 13.3 stops too dark, first at frame 127 (20:12:00).",
        "Let the settings follow the light · A ramp within its limits: 43 changes, the frames no more than 0.167 stops off, if they do not run out.",
    ),
    "automatic-flickers": (
        "An automatic exposure flickers: each frame is metered by itself, and strays by about 0.333 stops.",
        "Let the settings follow the light · A ramp within its limits: 10 changes, the frames no more than 0.167 stops off, if they do not run out.",
        "Expose 1/60 s throughout · One exposure for all: the light changes by no more than the edit can mend.",
    ),
    "limits-run-out": (
        "The limits run out at frame 243 (20:50:40): from there on the picture comes out up to 7.3 stops too dark.",
        "End at 20:50:40 · 242 frames, one every 20 s, 1 h 20 min 40 s on site, 9.68 s of clip.",
        "Open to f/1.8, and raise ISO up to 25 600 · Less depth of field from the first frame on, and the darkest frames are noisy.",
    ),
    "limits-too-bright": (
        "At frame 1 (15:30:00) it is too bright for the limits: the picture comes out up to 6.25 stops too bright.",
        "A filter of 8 stops from frame 1 on · A change by hand on the lens: it must not move the framing. Look at the focus afterwards.",
        "Expose down to 1/2500 s · What moves stands sharp and jumps from frame to frame while it is that bright.",
        "Close to f/25 · More depth of field; far closed down every lens gets softer, and dust on the sensor shows.",
    ),
    "hand-too-slow": (
        "In its ten busiest minutes 12 changes fall due, the closest two 40 s apart.",
        "Steps of half a stop · 8 changes in the ten busiest minutes; up to 0.25 stops left for the edit.",
    ),
    "aperture-flickers": (
        "The aperture changes twice in this ramp.",
        "Hold the aperture at f/8 · 38 frames more lie beyond the limits of shutter and ISO then.",
    ),
    "tests-disagree": (
        "The two test exposures contradict the model of the light by 1.82 stops each, one upwards and one downwards.",
        "Leave out the one of 19:30:00 · The curve goes through the other one alone: 6.01 stops against the model.",
        "Leave out the one of 20:30:00 · The curve goes through the other one alone: 2.38 stops against the model.",
    ),
    "filter-beyond-the-shoot": (
        "A filter of 3 stops is put on at frame 900; the shoot has 90 frames.",
        "Leave it out · Nothing changes in the picture.",
    ),
    "lamps-pulse": (
        "At 1/80 s lamps on 50 Hz mains come out brighter and darker from frame to frame, or in bands.",
        "Expose 1/100 s · A whole number of pulses: every frame gets as much light as the others.",
    ),
    "lens-dews-over": (
        "The air at 6 °C has its dew point at 5.1 °C: a lens under the open sky gets that cold.",
        "Warm the lens from the start · A band round the lens that draws two to five watts keeps it some degrees over the air.",
    ),
    "camera-holds-nothing": (
        "The phone with a timer app does not hold its exposure and focus: they are set anew for each frame, and the clip flickers.",
        "Plan with a camera that exposes by itself · The clip is told to flicker, as it will; the edit has to even it out.",
    ),
    "camera-has-no-manual-mode": (
        "The settings are to follow the light, but “phone with a timer app” has no manual mode.",
        "Let it expose by itself · Every frame is exposed, each a little differently: the clip flickers, and the edit has to even it out.",
        "Lock its exposure for the whole shoot · One exposure throughout: 14 of 120 frames would be beyond mending.",
    ),
    "aperture-is-fixed": (
        "The aperture is to follow the light, but “phone with a timer app” has only f/2.",
        "Hold the aperture at f/2 · Shutter and ISO follow the light alone.",
    ),
    "aperture-is-another": (
        "The plan counts on f/5.6; “phone with a timer app” has f/2 and nothing else.",
        "Plan with f/2 · With the same shutter and ISO every frame comes out 2.97 stops brighter.",
    ),
    "exposure-beyond-the-dial": (
        "Some frames need 8 s; “full-frame body, 24 MP” goes no slower than 2 s.",
        "Expose 2 s, with ISO set to 400 · As bright as before, with more noise.",
    ),
    "no-raw-files": (
        "Without raw files from “full-frame body, 24 MP” nobody can mend 2 stops too bright and 4 stops too dark, as the plan counts on.",
        "Count on 1 stop too bright and 2 stops too dark · Frames further off than that are told as beyond mending.",
    ),
    "stabiliser-stays-on": (
        "The stabiliser of “full-frame body, 24 MP” cannot be switched off: it shifts the picture from frame to frame.",
        "Keep 5 % of each side for levelling it out · The clip keeps 5700 px of the width; the edit has room to shift each frame back into place.",
    ),
    "mark-drifts-on-the-way": (
        "The post drifts 0.993 % of the width off its place between the two ends, most at frame 360.",
        "Let it drift · The mark is no longer followed; the move stays as it is.",
    ),
    "no-headset-key": (
        "The phone with a timer app sees 330 Ω at its headset socket, and no button of a headset has that.",
        "Take a resistor of 240 Ω · That is the nearest you can buy; a phone allows for a little more or less.",
    ),
    "relay-not-fed": (
        "Nothing feeds the coil of the relay board with its own driver: its supply pin is joined to nothing.",
        "Join it as it belongs · Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
    ),
    "relay-fed-too-low": (
        "The relay board with its own driver needs 5 V, and the supply pin gives only 3.3 V.",
        "Feed it from 5 V · Another supply pin of the board, or a supply beside it that shares its ground.",
    ),
    "coil-without-diode": (
        "The coil of the bare relay, 5 V has no diode across it.",
        "Put a diode across it · Its ringed end to the coil's plus; any small rectifier diode will do.",
    ),
    "interval-not-listed": (
        "The wired interval remote cannot be set to 10 s: it offers 1 s, 5 s, 15 s and 30 s.",
        "Set it to 5 s · 720 frames, one every 5 s, 1 h on site, 28.8 s of clip.",
        "Set it to 15 s · 240 frames, one every 15 s, 1 h on site, 9.6 s of clip.",
    ),
    "lead-too-short": (
        "The release lead for this camera is 600 mm long; the carriage travels 860 mm.",
        "Take a lead of 1200 mm · Slack at both ends, tied so that the ties take the pull and the plugs do not.",
    ),
    "plug-meets-box": (
        "The plug of the release lead for this camera and its bend need 60 mm; beside the camera the camera box, grey leaves 42.5 mm.",
        "Take a lead with an angled plug that needs 42 mm · It turns away beside the camera; tie it to the plate, so that nothing pulls at the socket.",
    ),
    "polariser-bands": (
        "The polariser darkens the sky unevenly over the 94.4° that this move sees.",
        "Leave the polariser at home · Reflections on water and glass stay; the sky is even.",
    ),
    "shoot-overrun": (
        "The shoot was to last 20 min and takes 33 min 20 s: 2000 frames need an interval of 0.6 s.",
        "Dial in steps of 0.5 s · If the timer has them; then the interval comes down to what the shoot leaves each frame.",
        "1200 frames, one every 1 s · Clip length no longer held. 1200 frames, one every 1 s, 20 min on site, 48 s of clip.",
        "Watch for 33 min 20 s · 2000 frames, one every 1 s, 33 min 20 s on site, 1 min 20 s of clip.",
    ),
    "mark-unknown-in-the-sky": (
        "Nobody knows where “the light” stands in the sky: the shoot has no place on earth and no bearing says which "
        "way the rig faces.",
        "Let it stand still · The mark “the light” keeps to a fixed direction, 40° from north and 20° above the horizon.",
    ),
    "mark-below-the-horizon": (
        "The mark “the light” is below the horizon from frame 1 to frame 158.",
        "Follow nothing · The camera goes from keyframe to keyframe, as they are typed.",
    ),
    "mark-leaves": (
        "At frame 1 the post is out of the picture, above it.",
        "Tilt to 38.2° · The camera looks that high all along; the horizon moves in the picture.",
        "Let it drift · The mark is no longer followed; the move stays as it is.",
    ),
    "buffer-stalls": (
        "The buffer is full after 57 frames, at 06:11:54; 654 of 1800 frames will be lost.",
        "Beat of 3.2 s · 1125 frames, one every 3.2 s, 1 h on site, 45 s of clip.",
    ),
    "ring-unmarked": (
        "How far the motor has to turn the zoom ring is not known: none of its marks was read off.",
        "Begin with the marks of a usual lens · A guess, to be typed over: turn the ring to each mark and read off how far the motor went.",
    ),
    "buffer-stalls-in-part": (
        "The buffer is full after 1 frame, at 06:10:05; 719 of 720 frames will not be whole, 1797 of 3600 pictures lost.",
        "Beat of 10 s · 360 frames, one every 10 s, 1 h on site, 14.4 s of clip.",
    ),
    "follows-out-of-travel": (
        "Following the post, the pan would come to 263°; it reaches from −170° to 170°.",
        "Follow it with the keyframes only · The pan goes from keyframe to keyframe again, as they are typed; the mark drifts.",
    ),
    "keyframe-misplaced": (
        "Keyframe 2 cannot stand where it was put: it comes at frame 359.",
        "Spread them evenly · Those that are misplaced stand evenly between their neighbours, without standing still there.",
        "Keep the first and the last only · The move goes straight from one to the other.",
    ),
    "letters-alike": (
        "The slide and the pan are both called Y in the drive's program.",
        "Letters as usual · Slide X, pan Y, tilt Z, roll A, focus B, zoom C; wire the controller so.",
    ),
    "mark-drifts": (
        "The post drifts 1.97 % of the width off its place, most at frame 171.",
        "Add 1 keyframe · Every keyframe points at it, and it drifts 0.11 % at most. The slide goes as before.",
        "Follow it at every frame · The pan is worked out for each frame and told to the drive so; its keyframes no longer count.",
        "Let it drift · The mark is no longer followed; the move stays as it is.",
    ),
    "mark-behind": (
        "At frame 1 the post is behind the camera: it cannot be followed.",
        "Follow nothing · The camera goes from keyframe to keyframe, as they are typed.",
    ),
    "move-quick": (
        "From frame 1 to the next the picture passes by 58.4 px, 0.974 % of its width.",
        "150 frames · Shoot length no longer held. 150 frames, one every 40 s, 1 h 40 min on site, 6 s of clip.",
        "Go 60.3 % of the way · Every keyframe of the slide and pan comes that much nearer to the first.",
    ),
    "move-strobes": (
        "From frame 1 to the next the picture jumps by 179 px, 2.99 % of its width: it strobes.",
        "154 frames · Shoot length no longer held. 154 frames, one every 2 min, 5 h 8 min on site, 6.16 s of clip.",
        "Go 19.6 % of the way · Every keyframe of the slide and pan comes that much nearer to the first.",
    ),
    "move-too-small": (
        "The whole move passes the picture by 39 px, 0.65 % of its width.",
        "Leave the camera still · Every keyframe becomes as the first; nothing has to settle, and nothing can go wrong on the way.",
    ),
    "slide-unseen": (
        "Along 800 mm of slide the near passes the far by 5.19 px only.",
        "Look for something 60 460 mm off the rail · A branch, a wall, a stone: it goes on the drawing as a mark. Put it where it is.",
        "End the slide at 0 mm · The slide travels 800 mm less; the interval stays.",
    ),
    "aims-too-alike": (
        "Two aims at the post, at 10° and 10.4°, do not tell where it is.",
        "Forget the two aims · The mark stays where it is drawn.",
    ),
    "stack-out-of-ring": (
        "The stack goes from 400 mm to 800 mm; turned by its motor the focus ring reaches from 500 mm to 10 000 mm.",
        "Stack from 500 mm to 800 mm · As far as the ring reaches; what lies beyond is not sharp.",
        "No focus stack · One focus for each frame, as the keyframes have it.",
    ),
    "stack-needs-stops": (
        "The move never stops, so the focus motor is not told the 2 positions of the stack.",
        "Shoot, move, shoot · The rig stands still while the ring goes through the stack; each frame needs the time for it.",
        "No focus stack · One focus for each frame, as the keyframes have it.",
    ),
    "stack-not-driven": (
        "6 focus positions in each of 100 000 frames are more than a drive is told here.",
        "No focus stack · One focus for each frame, as the keyframes have it.",
    ),
    "stack-holds-focus": (
        "The stack says where the focus ring stands; the focus of the keyframes is not driven.",
        "One focus for all keyframes · Nothing changes in what is driven while there is a stack.",
        "No focus stack · One focus for each frame, as the keyframes have it.",
    ),
    "aims-on-a-lean": (
        "Two aims at the post do not tell where it is: the pan leans by 10°.",
        "Forget the two aims · The mark stays where it is drawn.",
    ),
    "mark-elsewhere": (
        "The post is drawn 4000 mm off the rail; two aims put it between 1442 mm and 1563 mm.",
        "Put it at 1000 mm along, 1500 mm off the rail · The drawing follows the two aims; the pans that point at the mark change with it.",
    ),
    "cue-never-seen": (
        "The post is on the cue list and never comes into the picture.",
        "End on the post · The last keyframe points at it. The pan of the last keyframe goes from 0° to −88.7°.",
        "Take it off the cue list · It stays on the drawing.",
    ),
    "ends-beside": (
        "The move ends just beside the post: it is 10.8 % of the width outside the picture.",
        "End on the post · The last keyframe points at it. The pan of the last keyframe goes from 0° to 32°.",
    ),
    "sun-in-picture": (
        "The sun stands in the picture from frame 1 (07:20:00) to frame 360.",
        "Shoot 1 h earlier · The first frame is taken at 06:20:00; light and tide are others then.",
        "Tilt down by 20° · The horizon moves in the picture; what is followed keeps its place across.",
        "Turn the rail to face 60° · What has a place on the drawing turns with it, bearings stay: it is another picture.",
    ),
    "sun-flares": (
        "The sun stands just outside the picture from frame 1 (07:20:00) to frame 167.",
        "Shoot 30 min later · The first frame is taken at 07:50:00; light and tide are others then.",
        "Turn the rail to face 50° · What has a place on the drawing turns with it, bearings stay: it is another picture.",
    ),
    "own-shadow": (
        "The shadow of the camera falls into the picture from frame 1 (08:10:00) to frame 360.",
        "Shoot 1 h 30 min earlier · The first frame is taken at 06:40:00; light and tide are others then.",
        "Tilt up by 14° · The horizon moves in the picture; what is followed keeps its place across.",
        "Turn the rail to face 255° · What has a place on the drawing turns with it, bearings stay: it is another picture.",
    ),
    "rig-in-picture": (
        "The rig itself comes into the picture from frame 203 to frame 360: the end of the rail.",
        "Tilt up by 37° · The whole picture looks higher; the horizon sinks in it.",
    ),
    "picture-enlarged": (
        "2400 px are kept across, and 3840 px delivered: the picture is enlarged 1.6×.",
        "Deliver 2400 px across · The clip becomes smaller, and as sharp as it can be.",
        "Crop to 64 % at the least · The move goes in less far, and keeps its sharpness.",
    ),
    "lens-soft": (
        "The lens fills 4000 px across, the clip has 6000 px.",
        "Deliver 4000 px across · The clip becomes smaller, and as sharp as it can be.",
    ),
    "round-without-axis": (
        "A panorama row needs a pan, and the rig has none.",
        "One picture a cycle · The round is left out; the move goes from keyframe to keyframe.",
    ),
    "round-out-of-travel": (
        "The stereo pair would take the slide to −32.5 mm; it reaches from 0 mm to 900 mm.",
        "Bring the keyframes in · The slide goes from 32.5 mm to 868 mm at most, so that the places beside its ends come within reach; the framing there changes.",
        "One picture a cycle · The round is left out; the move goes from keyframe to keyframe.",
    ),
    "round-needs-stops": (
        "Several places in each cycle, and a move that never stops.",
        "Shoot, move, shoot · The rig stands still for each picture; every stop needs time to settle.",
        "One picture a cycle · The round is left out; the move goes from keyframe to keyframe.",
    ),
    "pass-too-short": (
        "One beat needs 5.66 s, but again takes a frame every 2 s.",
        "Every 6.3 s · Again takes as much longer; its positions stay.",
    ),
    "live-too-fast": (
        "Run live in 3 s, the slide would go 300 mm/s; its top speed is 25 mm/s.",
        "Take 36.1 s for it · Speed and acceleration stay within what the axis can do.",
    ),
    "thread-mismatch": (
        "The full-frame body, 24 MP does not go onto the 900 mm belt rail: three eighths, 16 an inch meets quarter inch, 20 an inch.",
        "Put in an adapter, three eighths, 16 an inch below, quarter inch, 20 an inch above · It stands between the two in the chain, and comes onto the packing list.",
    ),
    "threads-look-alike": (
        "M6 of the tripod, three sections goes into quarter inch, 20 an inch of the small body, 20 MP, and strips it.",
        "Put in an adapter, M6 below, quarter inch, 20 an inch above · It stands between the two in the chain, and comes onto the packing list.",
    ),
    "supply-too-weak": (
        "All motors together draw 1.4 A at most; the lead battery, 12 V gives 0.5 A.",
        "Plan with one that gives 3 A · Fused at the terminal. Measure voltage and polarity before anything is connected.",
    ),
    "lead-too-thin": (
        "The lead of 12 000 mm loses 4.13 V of 12 V there and back.",
        "Take 1 mm² · Less than a twentieth of the voltage is lost then.",
    ),
    "overload": (
        "The tripod, three sections carries 1.5 kg; 2.59 kg stand on it.",
        "Plan with one that carries 3.5 kg · A card to be filled in takes its place, with a quarter in hand; put your own there.",
    ),
    "screw-too-long": (
        "The screw of the adapter, 3/8 hole on 1/4 screw stands out 9 mm; the hole in the full-frame body, 24 MP is 5.5 mm deep.",
        "Put in a washer of 4 mm · The screw reaches 5 mm into the hole then, and the plate comes down tight.",
    ),
    "wide-body": (
        "The small body, 20 MP is 116 mm wide on a platform of 40 mm.",
        "Put in a spacer plate · It lifts the body clear; the camera stands 15 mm higher.",
    ),
    "lead-mismatch": (
        "The lead of the two-axis motion controller has a plug for USB; the full-frame body, 24 MP has a socket for 2.5 mm.",
        "Take a lead for 2.5 mm · The plan counts on a lead that fits the camera; try it at home.",
    ),
    "lens-creeps": (
        "The 24–70 mm f/4 creeps when it is tilted, and the rail stands at 12°.",
        "Tape its rings · Tape over zoom and focus ring, once both are set.",
    ),
    "rig-tips": (
        "The rig tips with the carriage below 107 mm; the move goes to 20 mm.",
        "A second support at the far end · The rail stands on both; test for rocking on four points, level, tighten, level again.",
        "Keep the slide between 109 mm and 801 mm · The move is shorter by 168 mm; the framing changes at both ends.",
        "Spread the feet to 200 mm · A wider tripod, or spreaders under this one; measure from the middle to a foot.",
    ),
    "rail-sags": (
        "The rail bends under the carriage: over the move the camera rolls by 16.1 px at the edge of the picture.",
        "Stand it on 3 supports · It is 1.22 px then. Level them together, tighten, level again.",
        "Plan with rods of 26 mm · Solid rods of that size sag less than two pixels; the rail grows heavier.",
    ),
    "carriage-strikes": (
        "The carriage has 770 mm on this rail; the axis is set to travel 900 mm.",
        "Slide no further than 770 mm · The carriage stays 15 mm clear of both ends.",
    ),
    "motor-too-weak": (
        "With the rail at 60° the motor of the slide needs 63.1 N·mm and has 60 N·mm; twice as much is little enough.",
        "Lower the rail to 21.8° · The motor has twice what it needs.",
        "Plan with a motor of 130 N·mm · At the speed of the move, not standing still; its driver set to its current.",
    ),
    "rail-lets-go": (
        "With the rail at 60° the carriage runs down when the motor is off: 53.1 N·mm against 18 N·mm that hold it.",
        "Lower the rail to 19.3° · It stays where it is when the power goes. Steeper only with a brake or a counterweight.",
        "Fit a brake that holds 107 N·mm · The plan counts on it; try it with the battery out, before the camera is on.",
    ),
    "shaft-overload": (
        "The two-axis head, tilt has 233 N·mm on its shaft, and takes 100 N·mm.",
        "Balance it to 14.9 mm off the axis · Move the plate until the camera stays where it is put with the clamp loose.",
    ),
    "axis-twice": (
        "The hand-set base with a scale is a pan like the two-axis head, pan: it does not drive.",
        "Take the hand-set base with a scale off · The other one drives; it stays where it is in the chain.",
        "Take the two-axis head, pan off · The other one drives; it stays where it is in the chain.",
    ),
    "pan-on-slope": (
        "The rail slopes by 12°, and nobody has said how the pan on it stands.",
        "It leans with the rail · The sweep draws an arc; it is drawn beside.",
        "It stands upright · A levelling base, a wedge or a ball head takes the slope out.",
    ),
    "horizon-tilts": (
        "A pan base 2° off level tilts the horizon by up to 210 px through the sweep.",
        "Level it to 0.11° · Under 12 px from edge to edge. A bubble in the head, not the one under it.",
        "It leans on purpose · What it is off level counts as its lean: the pan draws an arc, drawn beside; say towards where.",
    ),
    "steps-uneven": (
        "The pan takes 0.131 steps a frame: its pace wavers by 100 %, and a step is 17.3 px.",
        "128 microsteps · Set on the driver; a step becomes finer, and the top speed may fall.",
    ),
    "drive-cannot-stop": (
        "The pan runs on: its spring cannot stop for each frame.",
        "Move all the time · Every frame is taken while the axis runs; keep the exposure short.",
    ),
    "drive-cannot-ease": (
        "The slide eases over 20 frames, but its switch of speeds has one pace only.",
        "No ease · The move runs at one pace from its first frame to its last.",
    ),
    "sweep-differs": (
        "In 59 min 50 s the pan goes 239° and ends at 239°; the move asks for 128°.",
        "Beat of 5 s · Exactly it would be 5.35 s. The pan ends at 120°. Shoot length no longer held. 360 frames, one every 5 s, 30 min on site, 14.4 s of clip.",
        "193 frames · The pan ends at 128°. Shoot length no longer held. 193 frames, one every 10 s, 32 min 10 s on site, 7.72 s of clip.",
        "Leave the pan still · Do not start it; the move is done without it.",
    ),
    "sweep-nearly": (
        "The pan will end at 7.51° instead of 7.7°: 2.48 % of its way is missing.",
        "Beat of 10.3 s · Exactly it would be 10.3 s. The pan ends at 7.73°. Shoot length no longer held. 360 frames, one every 10.3 s, 1 h 1 min 48 s on site, 14.4 s of clip.",
        "369 frames · The pan ends at 7.7°. Shoot length no longer held. 369 frames, one every 10 s, 1 h 1 min 30 s on site, 14.8 s of clip.",
        "End the pan at 7.51° · The shoot keeps its length; the move ends where the drive will be.",
        "Leave the pan still · Do not start it; the move is done without it.",
    ),
    "spring-runs-down": (
        "The spring of the pan runs 2 h; the move lasts 2 h 29 min 50 s.",
        "Watch for 2 h · 720 frames, one every 10 s, 2 h on site, 28.8 s of clip.",
    ),
    "turns-the-other-way": (
        "The pan only turns to the right; the move goes the other way.",
        "Mirror the move · It begins at its last framing and ends at its first: the pan goes from −240° to 0°.",
        "Hang it upside down · It turns the other way round then. Put the camera on it upright, or turn the footage by half a turn in the edit.",
        "Shoot it from its end, and play it in reverse · The clip goes as planned, but whatever moves in it goes backwards: people, smoke, water, clouds.",
    ),
    "rate-out-of-range": (
        "The pan would need 50.1 °/min; its menu reaches from 0.126 °/min to 32.2 °/min.",
        "Beat of 15.6 s · Exactly it would be 15.6 s. The pan ends at 3002°. Shoot length no longer held. 360 frames, one every 15.6 s, 1 h 33 min 36 s on site, 14.4 s of clip.",
        "561 frames · The pan ends at 3002°. Shoot length no longer held. 561 frames, one every 10 s, 1 h 33 min 30 s on site, 22.4 s of clip.",
        "Leave the pan still · Do not start it; the move is done without it.",
    ),
    "clock-driven-axis": (
        "An event calls the frames, but the spring of the pan runs by the clock.",
        "Let the clock call the frames · Frames come at the interval, whether the event has happened or not.",
    ),
    "drive-goes-straight": (
        "The move of the pan has turns or stops, but its spring goes one way at one pace.",
        "Straight from the first keyframe to the last · All other keyframes, ways back and rounds are left out, on every axis.",
    ),
    "scale-too-coarse": (
        "The scale of the pan is divided into 1°; the move goes 0.0836° a frame.",
        "Plan with a scale of 0.1° · A printed strip with that division can be taped over the old one.",
    ),
    "below-interval-floor": (
        "The full-frame body, 24 MP cannot go under 2 s; the interval is 1 s.",
        "Beat of 2 s · 1800 frames, one every 2 s, 1 h on site, 1 min 12 s of clip.",
    ),
    "trigger-gives-up": (
        "The wired interval remote stops after 99 frames; the shoot has 360 frames.",
        "Hold 99 frames · Shoot length no longer held. 99 frames, one every 10 s, 16 min 30 s on site, 3.96 s of clip.",
    ),
    "speed-not-known": (
        "How fast the pan moves is not known: the beat keeps no time for its moves.",
        "Count on 5 °/s for the pan · The beat keeps the time for its moves at that speed; try it before the shoot.",
    ),
    "clocks-not-tied": (
        "The wind-up turntable, two-hour and the camera each run by a clock of their own.",
        "Plan with two starts · The field card says what to start first, 20 s apart. The clip has a handle of 2 frames at its start and one of 3 frames at its end; the edit cuts them off.",
        "Tie them together · What moves fires the camera, or the camera sets it going: by a contact, a lead or one app.",
    ),
    "moves-by-chance": (
        "Nothing ties the two-axis head, pan to the camera, so the rig may move while the shutter is open, from the first frame on.",
        "Tie them together · What moves fires the camera, or the camera sets it going: by a contact, a lead or one app.",
        "Move all the time · Frames are taken on the way; each smears 0.0146 px at most, which nobody sees.",
        "Plan with two starts · The field card says what to start first, 20 s apart. The clip has a handle of 1 frame at its start and one of 1 frame at its end; the edit cuts them off.",
    ),
    "nothing-fires": (
        "Nothing fires the full-frame body, 24 MP: no trigger is on the rig.",
        "Use the camera's own timer · It calls every frame; set its interval and its number of frames as the field card says.",
    ),
    "bracket-all-alike": (
        "The 3 exposures of the bracket are all alike: they lie 0 stops apart.",
        "Take one exposure a frame · The bracket is gone; the beat gets shorter.",
        "Set them 2 stops apart · The longest one counts for the beat: it may not fit any more.",
    ),
    "nothing-moves": (
        "This shoot is to slide past something, and nothing moves yet.",
        "Leave the camera still · The shoot is no longer one that moves; nothing else changes.",
    ),
    "no-print-calls": (
        "This shoot waits for a print to call its frames, and no print file is here yet.",
        "Let the clock call the frames · They come at the interval, wherever the head is; it is in the picture.",
    ),
    "print-not-proven": (
        "The changed file has not been proven yet.",
        "Leave the changed file aside · The slicer puts the stops in, by a snippet; what it makes is proven when it is brought in.",
    ),
    "switch-on-two-cards": (
        "The lever switch and a switch that is pressed may be one switch with two cards.",
        "Keep one: take off a switch that is pressed · The switch that the head meets fires the camera. Do the bench test again.",
    ),
    "camera-hears-no-contact": (
        "The lever switch closes a contact, and a phone listens to none.",
        "Wire it as a headset's volume button · A resistor of 240 Ω goes into the lead. Try a headset first: the app has to fire on volume up.",
    ),
    "stop-parks-anywhere": (
        "Nothing says where along Y the head stands while a picture is taken.",
        "Park at Y 198 mm · The same place for every picture; look at it under The bed.",
    ),
    "pads-not-known": (
        "Which pads of the radio remote focus and which one fires is not known yet.",
        "Have its own button pressed · The head, or an arm on it, presses the remote's button. Nothing has to be soldered.",
    ),
    "remote-runs-empty": (
        "The cell of the radio remote lasts for about 4 presses; this shoot needs 6 presses.",
        "Feed it from a supply · Lead the same voltage to its cell's contacts. Measure which one is plus before you solder.",
    ),
    "print-has-tower": (
        "A tower is printed beside the part, X 20 to 45 and Y 150.5 to 180 mm.",
        "Accept the tower · It is hidden, or meant to be seen, and nothing hits it.",
    ),
    "command-lets-go-too-soon": (
        "The bed printer holds the contact for 0.1 s at its command; the camera wants 0.5 s before it fires.",
        "Set its hold to 0.5 s · Where its settings let you; else take a pair of commands, on and off.",
    ),
    "stop-leaves-lamps-dark": (
        "A lamp is to be lit for the frame alone, and no stop switches it.",
        "Leave the lamps on · Lit through the whole print, between frames too.",
    ),
    "pause-waits": (
        "Each stop is a pause: 6 times somebody, or the print's host, has to let it go on.",
        "The host goes on by itself · Try it with a trial of ten layers first.",
    ),
    "start-meets-switch": (
        "The start of the file sends the head to X 239 mm, where it touches the lever switch.",
        "Fit the switch after the start · While the first layer is printed, from the far side.",
        "It is moved out of the way · Where it clicks is open then, until it is read again.",
    ),
    "start-presses-switch": (
        "The end of the file sends the head to X 237 mm, where it presses the lever switch: one frame more, after the last layer.",
        "Take the switch off before the end · After the last frame, before the head goes on.",
        "Strike that frame out · It is the last of the clip.",
    ),
    "macro-has-conditions": (
        "Nobody here can read what PREHEAT does: its text has conditions in it.",
        "I have looked it up: it moves nothing · Its text in the printer's card is replaced by that; the proof takes your word for it.",
    ),
    "proof-failed": (
        "The proof of the changed file failed: 3 faults found.",
        "Leave the changed file aside · The slicer puts the stops in, by a snippet; what it makes is proven when it is brought in.",
    ),
    "two-starts-no-room": (
        "The beat leaves 0.94 s free, too little for two starts: the rig may move while the shutter is open, from the first frame on.",
        "Tie them together · The controller fires the camera over a lead, or the camera's shutter steps the controller.",
    ),
    "handles-do-not-absorb": (
        "Camera and motor are started 20 s apart: 2 frames at the start and 3 frames at the end are not as planned.",
        "Handles of 2 frames and 3 frames · The camera is started first and stopped last; the edit cuts the handles off.",
    ),
    "wires-not-known": (
        "Which wire of the cut lead is ground and which is shutter is not known yet.",
        "Plan with a lead bought for this camera · Its plugs fit, and nothing has to be named or soldered on the camera's side.",
    ),
    "switch-not-known": (
        "Which contacts of the switch close when it is pressed is not known yet.",
        "Go by what is printed on it · COM, NO and NC beside its contacts; a meter still tells whether that is true.",
    ),
    "pin-voltage-not-read": (
        "Nobody has read what the spare pin of the printer's board puts on its pin while it is on.",
        "Plan with 3.3 V · Still to be measured before anything is connected.",
        "Plan with 5 V · Still to be measured before anything is connected.",
    ),
    "app-key-not-tried": (
        "Whether the app on the phone with a timer app fires on a key of a headset has not been tried.",
        "It fires on volume up · So it was tried with a headset.",
    ),
    "focus-for-shutter": (
        "The lever switch in a housing presses the focus contact of the full-frame body, 24 MP and never its shutter.",
        "Join it as it belongs · Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
    ),
    "shutter-held": (
        "The shutter of the full-frame body, 24 MP is held down while nothing presses.",
        "Join it as it belongs · Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
    ),
    "shutter-at-half-press": (
        "The full-frame body, 24 MP is released by the half press of the wired interval remote already.",
        "Join it as it belongs · Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
    ),
    "half-press-missing": (
        "The full-frame body, 24 MP releases only while its half press is held; the lever switch in a housing closes the shutter contact alone.",
        "Join it as it belongs · Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
    ),
    "press-not-heard": (
        "When the lever switch in a housing presses, the full-frame body, 24 MP hears nothing.",
        "Join it as it belongs · Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
    ),
    "light-backwards": (
        "The optocoupler, 330 ohm before it is joined the wrong way round.",
        "Join it as it belongs · Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
    ),
    "light-too-weak": (
        "The light of the optocoupler, 330 ohm before it gets 0.444 mA; it needs 5 mA.",
        "Put 220 Ω before it · The light gets half as much again as it needs.",
    ),
    "coil-too-weak": (
        "The relay board with its own driver does not pull in: its coil gets 2.59 mA of 4 mA.",
        "Take a relay board with a driver, for 3.3 V · Its coil is fed from the supply; the pin gives 4 mA.",
    ),
    "wrong-headset-key": (
        "The phone with a timer app takes this press for volume down; its app fires on volume up.",
        "Take a resistor of 240 Ω · That is the nearest you can buy; a phone allows for a little more or less.",
        "Let the app fire on volume down · Where its settings know that key; try it with a headset first.",
    ),
    "chain-never-rests": (
        "This chain switches itself on and off without end.",
        "Join it as it belongs · Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
    ),
    "circuits-tied": (
        "The circuit of the spare pin of the printer's board and that of the full-frame body, 24 MP are tied together.",
        "Join it as it belongs · Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
    ),
    "foreign-voltage": (
        "1.7 V more than its own reach the contacts of the full-frame body, 24 MP.",
        "Put an optocoupler between · It passes the press on as light: no current of one device reaches the other; 470 Ω before.",
    ),
    "pin-overloaded": (
        "The microcontroller board is asked for 124 mA; a pin of it gives 20 mA at most.",
        "Take a relay board with a driver, for 12 V · Its coil is fed from the supply; the pin gives 4 mA.",
    ),
    "pin-in-use": (
        "Pin P1 of the spare pin of the printer's board is used already: probe.",
        "Use P2 · It is free on the card; measure what stands on it, on and off.",
    ),
    "relay-wears-out": (
        "The relay board with its own driver is pressed 360 times; its contacts are made for 300.",
        "Take an optocoupler instead · Light does not wear. It joins one way only: mind which end is which.",
    ),
    "ground-lifted": (
        "The lamps' current lifts the ground of the lead by 1.12 V; a signal of 3 V bears a tenth of that.",
        "Give the lamps a return wire of their own · Their current leaves the signal's ground alone; the two meet at the supply.",
    ),
    "lamp-lead-loses": (
        "The lamps' lead loses 1.8 V there and back, of 12 V.",
        "Take a wire of 0.03 Ω/m · Less than a tenth is lost then; a thicker wire has fewer ohms in a metre.",
    ),
    "press-too-short": (
        "The full-frame body, 24 MP hears the press for 0.05 s; it takes no notice of less than 0.1 s.",
        "Press for 0.2 s · Released well before the next press.",
    ),
    "press-not-released": (
        "The press lasts until 12.4 s of a beat of 10 s: it is not let go before the next.",
        "Press for 5 s · Half of what is free: time to let go before the next.",
    ),
    "camera-asleep": (
        "The full-frame body, 24 MP sleeps after 1 min; the longest gap is 2 min, and nothing wakes it before the press.",
        "Half press 0.4 s ahead · It wakes the camera; the full press then finds it ready.",
        "Press for 0.6 s · Released well before the next press.",
        "Press something every 48 s to keep it awake · A half press, or a touch that takes no frame; it costs some charge.",
    ),
    "falls-asleep": (
        "The wireless remote, receiver on the camera sleeps after 1 min; the longest gap is 2 min.",
        "Press something every 48 s to keep it awake · A half press, or a touch that takes no frame; it costs some charge.",
    ),
    "dwell-too-short": (
        "What calls the frames goes on after 0.05 s; the shutter closes 0.077 s after the press.",
        "Let it wait 0.2 s · The shutter has closed by then, with a tenth of a second to spare.",
    ),
    "focus-blocks-release": (
        "The full-frame body, 24 MP focuses before every frame, and does not release until it has found focus.",
        "Focus by hand, and leave it · One focus for all frames, unless the plan drives it.",
    ),
    "autofocus-left-on": (
        "The full-frame body, 24 MP focuses anew for every frame.",
        "Focus by hand, and leave it · One focus for all frames, unless the plan drives it.",
    ),
    "stabiliser-left-on": (
        "The stabiliser is left on.",
        "Switch it off · On the lens, on the camera, or both.",
    ),
    "lamp-not-warm": (
        "The grow lamp is switched 0.5 s ahead of the shutter; it comes on in 1 s.",
        "Switch it 1 s ahead · It is as bright for every frame.",
    ),
    "warm-up-not-in-beat": (
        "The grow lamp has to be switched 1 s ahead of the shutter, and the beat leaves it 0.46 s.",
        "Give the beat 0.94 s for it · Everything else of the beat comes that much later.",
    ),
    "lamp-level-unused": (
        "The grow lamp has 2 levels, and a frame has only one exposure.",
        "Light it at 100 % · Every exposure gets the same light.",
    ),
    "lamp-needs-dimmer": (
        "The grow lamp goes from 50 % to 100 % within a frame, but a relay can only switch it on and off.",
        "Set its levels to 100 %, dark and 100 % · In the order of the exposures; the last one holds for all that "
        "follow it.",
    ),
    "toggle-loses-count": (
        "The grow lamp is switched by a push that turns it on and off in turn.",
        "Switch it by a level · A relay or a switched socket in its supply: on is on, and off is off.",
        "Leave it on all the time · It draws its power for the whole shoot, and nothing can get out of step.",
    ),
    "lamp-on-after-power-cut": (
        "The grow lamp comes on by itself when the power comes back.",
        "Plan with one that stays dark · It has to be tried: pull its plug and put it back.",
    ),
    "lamp-supply-too-weak": (
        "What hangs on the bench supply, 12 V draws 1.5 A; it gives 1 A.",
        "Plan with a supply of 2 A · A quarter to spare, a fuse in its lead, and no mains inside that you have not bought ready made.",
    ),
    "out-of-range": (
        "The wireless remote, receiver on the camera reaches 30 000 mm; the camera stands 50 000 mm away.",
        "Stand 15 000 mm from the camera · Half of what it reaches; a repeater, or a lead, where that cannot be.",
    ),
    "link-may-drop": (
        "When the link of the wireless remote, receiver on the camera drops, it stops calling frames.",
        "Plan with one that goes on by itself · The camera's side counts the frames, and the link is for looking in; try it: switch it off.",
    ),
    "shutter-falls-into-move": (
        "From frame 64 on the shutter may fall into the move.",
        "Tie them together · The controller fires the camera over a lead, or the camera's shutter steps the controller.",
        "Plan with clocks that keep to 439 ppm · To be measured: both counting for a night, side by side.",
    ),
    "print-spiral": (
        "The print in “cup.gcode” is one long spiral: it has no layers.",
        "Photograph it by the clock, every 2 s · The head is in the picture, and elsewhere in each; about 300 frames.",
    ),
    "print-lines-unread": (
        "3 lines of “cup.gcode” cannot be read, the first is line 4,012.",
        "Take this file out · Its layers stay as times; slice it again, or fetch it again, and put that in.",
    ),
    "print-commands-unknown": (
        "Nobody here knows what PREHEAT does.",
        "I have looked it up: it moves nothing · It goes into the printer's card; the proof takes your word for it.",
    ),
    "print-stops-already": (
        "Somebody has put stops into this file already: M240 12 times and the head sent to one place outside of the print, in 12 layers.",
        "Put ours in beside them · Both sets stand in the file then. Better take the first out where the file was sliced.",
    ),
    "print-pauses": (
        "The print pauses by itself once, first in line 71.",
        "They are meant · The frames wait as the print does; the run waits for its layers.",
    ),
    "print-several-tools": (
        "The file prints with 2 tools.",
        "I have watched a change of tool · Where it parks, the switch is not in its way.",
    ),
    "print-layers-vary": (
        "The layers differ in thickness; a frame every 2 layers makes the print grow in jumps.",
        "A frame every 0.36 mm of height · About as many frames, at equal heights; the last is the finished part as before.",
    ),
    "windows-hold-nothing": (
        "No window is open for a frame between 2026-06-01 and 2026-06-14.",
        "Every day from 7:00 to 17:00 · One rule instead of those that are there; days off go.",
    ),
    "rule-never-fires": (
        "Rule 2 calls no frame: Monday to Friday, 9:00 to 12:00.",
        "Take rule 2 out · The others have what they had.",
    ),
    "rules-fight": (
        "Rules 1 and 2 claim the same 1 d 16 h with different intervals.",
        "Give rule 2 the interval of rule 1 · The clip goes at one pace through both.",
    ),
    "rule-needs-a-place": (
        "Rule 1 goes by the sun, and nobody knows where that comes up: Every day, sunrise to 30 min before sunset.",
        "By the clock, 7:00 to 17:00 · In summer it is light before, in winter dark by then.",
    ),
    "print-not-in-picture": (
        "The finished part is 40 mm wide and 2.4 mm high; the picture takes in 21.6 mm by 14.4 mm.",
        "Stand the camera 120 mm away · The finished part fits, with a tenth to spare around it.",
    ),
    "print-leaves-picture": (
        "Not all of the part is in the picture in 6 frames, first in frame 1, when it is 0.4 mm high.",
        "Aim the camera at the middle of the finished part · Every keyframe turns by as much; the empty bed lies low in the picture at first. The tilt goes from 0° to −17.8° in every keyframe.",
        "Stand the part 340 mm away, and aim at its middle · All of it is in every picture, and smaller. The tilt goes from 0° to −16.6° in every keyframe.",
        "It is to be so · What leaves the picture is not in the clip.",
    ),
    "print-head-in-picture": (
        "The parked head stands in the picture, in 6 frames.",
        "It may be seen · It stands still in every frame, and only rises.",
    ),
    "print-in-daylight": (
        "The sun is up in 6 frames of 6.",
        "Daylight is shut out · The lamps alone light it; look at the first frames with them off: they have to be black.",
    ),
    "print-out-of-focus": (
        "Of the depth of 30 mm that the part has, 9.69 mm is sharp.",
        "Stand the camera 520 mm away · All of the part is sharp then, and smaller in the picture.",
    ),
    "stop-oozes": (
        "The filament is drawn back 0.8 mm before the head leaves; a long-tube extruder wants about 5 mm.",
        "Draw the filament back 5 mm · Then look at the trial for strings, and change it by tenths.",
    ),
    "stop-grinds": (
        "The filament is drawn back 6 mm; a direct extruder wants about 0.8 mm.",
        "Draw the filament back 0.8 mm · Then look at the trial for strings, and change it by tenths.",
    ),
    "stop-raises": (
        "The head is raised 10 mm before it leaves the part.",
        "Leave at the layer's height · Faster by what the climb takes.",
    ),
    "stop-hits-neighbours": (
        "2 objects are printed one after another, and the head leaves at the height of the one at work.",
        "Raise the head 3.2 mm first · Slow, and it drips; but it clears what stands.",
    ),
    "stop-no-infill": (
        "The stop is to stand before the infill, and the file says for 10 layers where that begins.",
        "Stop at the end of the layer · The same place in every layer.",
    ),
    "stop-heater-off": (
        "One stop takes 33.5 s; the bed printer turns its heaters off after 20 s without a move.",
        "Wait only as long as the picture takes · 0.2 s instead: lag, exposure and a tenth of a second.",
        "Have the printer wait 1 min 34 s · Set it in the printer's own menu; its card says so here.",
    ),
    "stop-delivered-twice": (
        "The stops reach the printer in 2 ways at once.",
        "Only the changed file · Empty the slicer's field and the host's commands, or they act all the same.",
    ),
    "camera-on-printer": (
        "The camera stands on the printer, and nothing waits until it has come to rest.",
        "Wait 0.5 s before each press · About what a light frame takes to come to rest; look at the trial for doubled edges.",
    ),
    "switch-refitted": (
        "The lever switch was fitted anew after its coordinate was read.",
        "It was read again on that day · Say so only where it was.",
    ),
    "switch-pushed-too-far": (
        "The head pushes 2.5 mm beyond the click; the lever switch can be pushed 2 mm.",
        "Push 0.5 mm beyond the click · A third of its way at most: it clicks for sure, and has room left.",
    ),
    "switch-barely-pressed": (
        "The head pushes 0.05 mm beyond the click.",
        "Push 0.5 mm beyond the click · A third of its way at most: it clicks for sure, and has room left.",
    ),
    "switch-out-of-reach": (
        "To press, X has to go to 236.4 mm; the bed printer goes to 230 mm.",
        "It is moved inwards · Where it clicks is open then, until it is read again.",
    ),
    "switch-not-let-go": (
        "The head backs off 0.3 mm from the click; the lever switch lets go after 0.5 mm.",
        "Back the head off 5.5 mm · It has let go by then, and the head stands clear of it.",
    ),
    "print-meets-switch": (
        "The print reaches to 239 mm along X; from 238 mm on the shroud touches the lever switch.",
        "It is moved outwards · Where it clicks is open then, until it is read again.",
    ),
    "switch-at-one-height": (
        "The lever switch is met at one height only; 3 layers of those chosen miss it, the last at a height of 2.4 mm.",
        "Only the layers that reach it · From a height of 0.2 mm to 1.4 mm; the rest of the print is not in the clip.",
        "It is fixed to the beam that rises · Read again where it clicks.",
    ),
    "switch-held-by-tape": (
        "The lever switch is only held by tape.",
        "It is clamped now · Press it ten times by hand, and read its coordinate again.",
    ),
    "card-holds-no-frame": (
        "A frame takes 31.2 MB; less than that is free on the card.",
        "Plan with a card of 8 GB · Frames fit on it. The share that is kept free is as before.",
    ),
    "draw-not-known": (
        "Nobody knows what the heater draws: no day is told on which the battery is empty.",
        "Count on what is usual until it is measured · 3 W. Put what the meter says in their place.",
    ),
    "battery-runs-out": (
        "The battery is empty on 13 June 2026, 12 d after the first frame.",
        "A timer that cuts the camera's power between windows · The camera has to come back by itself with its settings: to be tried on the bench.",
        "Swap the battery at visits · A second one, charged at home; it has to be carried up each time.",
        "A battery of 60 Ah · About 18.8 kg instead of 12.5 kg. A fuse at its terminal; connected by somebody who knows.",
    ),
    "lithium-charged-in-frost": (
        "The panel charges a lithium battery at −6 °C.",
        "Plan with a lead battery of the same charge · Several times as heavy; it may be charged in frost, slowly.",
    ),
    "box-too-hot": (
        "In the sun it gets 83.6 °C in the box; the site body is made for 40 °C at most.",
        "Paint it white and put a roof over it that stands off · 33.9 °C inside then.",
    ),
    "lens-meets-glass": (
        "The lens is 95 mm at its longest, and there are 90 mm from the mount to the glass.",
        "Plan with 100 mm from the mount to the glass · A deeper box, or the camera farther back in it.",
    ),
    "window-cuts-corners": (
        "The lens sees through 141 mm of glass at its front; the window is clear over 80 mm.",
        "A window that is clear over 142 mm · The lens close to the glass needs less; a ring of black foam around it keeps glints out.",
    ),
    "holes-open": (
        "2 of the 3 holes of the box have neither gland nor plug.",
        "A gland or a plug for each · Glands face down. What is drilled later counts too.",
    ),
    "no-drip-loop": (
        "Nobody says that the leads hang in a loop below their glands.",
        "They hang in a loop · It goes onto the list of what is looked at on each visit.",
    ),
    "glass-fogs-over": (
        "At 2 °C the glass is colder than the dew point of the air, 10.4 °C.",
        "A heater of 3 W before the glass, below the dew point · Some degrees are enough. It is in the balance of the battery from then on.",
    ),
    "restart-not-tried": (
        "Nobody knows what the site body does when the power comes back.",
        "Tried: it goes on with its settings · Only if somebody has pulled the plug while it was running.",
    ),
    "does-not-restart": (
        "After a power cut the site body has forgotten its settings.",
        "Plan with one that goes on by itself · Another device, or one that is kept running through cuts by a battery of its own.",
    ),
    "numbers-overwrite": (
        "After a power cut the site timer numbers its files from the beginning and writes over those that are there.",
        "Its files have the date in their names · Where its menu has that: then no name comes twice.",
    ),
    "visit-off-its-day": (
        "3 times somebody has to come on another day than Monday, first on 4 June 2026: swap the card.",
        "Any day will do · Then everything is done as late as it can be.",
    ),
    "visits-without-end": (
        "More than 400 visits would be needed.",
        "A card of 32 GB · 32 GB in the camera.",
    ),
    "shutter-worn-out": (
        "The shutter of the site body will have taken 150 340 pictures by the end; it is rated for 150 000 pictures.",
        "Let it expose without a moving shutter · Where it can: nothing wears then. What moves fast in the picture may lean, lamps may draw bands.",
    ),
    "cut-not-bridged": (
        "When the mains fails the battery lasts for 3.5 h; cuts of 6 h are reckoned with.",
        "A battery of 2 Ah · About 50 kg instead of 12.5 kg. A fuse at its terminal; connected by somebody who knows.",
    ),
    "visit-too-late": (
        "Nobody can come before it is due to swap the card, first on 2 June 2026.",
        "A card of 32 GB · 32 GB in the camera.",
    ),
    "controller-has-no-hours": (
        "The site timer has no hours: it goes on day and night, and 1092 frames are taken that no window asks for.",
        "Plan with one that can be told hours and days · Its entries are worked out; look up what rules it knows.",
    ),
    "controller-clock-change": (
        "Nobody knows whether the site timer puts its clock forward and back by itself; the clocks change on 25 October 2026.",
        "It does · Set its clock to another year's day of change once, and see.",
        "It does not · Its hours stay wide, or its clock is set at a visit.",
    ),
    "controller-misses-frames": (
        "As the site timer can be told, 210 frames of 840 frames will not be taken.",
        "Plan with a board that runs a program of one's own · Every window is told it as it is; it has to be written and tried.",
    ),
    "aim-eats-picture": (
        "Registered on one another the frames leave 4990 px of picture across; the clip is delivered 5600 px wide.",
        "Deliver 4988 px · Every frame fills that without being enlarged.",
    ),
    "stands-in-view": (
        "The alder reaches over a quarter of the picture from 1 June 2026 on; by the end over 43.2 % of its height.",
        "It belongs to the picture · It is not looked at any more here.",
    ),
    "nobody-looks": (
        "Nobody looks at a frame before the end: 1680 frames could be lost without anybody knowing.",
        "Look at the frames every two weeks · At a visit, or from afar: then they are looked at every day.",
    ),
    "mast-sways": (
        "In wind of 25 m/s the top of the mast leans by 1.13°: 79 px of the picture.",
        "Guy it so that the mast stands free over 393 mm · By somebody who is trained for masts. Guys are marked so that nobody walks into them.",
    ),
}


def found(code: str, plan: Plan | None = None) -> Snag:
    """The first snag of a kind in the plan that provokes it."""
    told = evaluate(plan) if plan else provoked(code)
    return next(snag for snag in told.snags if snag.code == code)


def read(snag: Snag, plan: Plan) -> tuple[str, ...]:
    """A snag as it stands on the sheet."""
    zone = plan.shoot.place.zone
    fixes = (f"{fill(fix.label, fix.slots, zone)} · {fill(fix.consequence, fix.slots, zone)}" for fix in snag.fixes)
    return (fill(snag.what, snag.slots, zone), *fixes)


class Said(TestCase):
    def test_every_kind_of_snag_is_provoked_and_each_fix_removes_it(self) -> None:
        self.assertEqual(len({kind.code for kind in KINDS}), len(KINDS))
        self.assertEqual(set(PROVOKE), {kind.code for kind in KINDS})
        for code, plan in PROVOKE.items():
            now = Following(plan)
            snags = [snag for snag in now.told.snags if snag.code == code]
            self.assertTrue(snags, code)
            for snag in snags:
                self.assertTrue(snag.fixes, code)
                fixes_work(self, plan, snag, now)

    def test_each_says_what_it_says(self) -> None:
        self.assertEqual(set(SAID), set(PROVOKE))
        for code, plan in PROVOKE.items():
            with self.subTest(code):
                self.assertEqual(read(found(code), plan), SAID[code])


# Worked out beside the code, from what the plans and the cards say. 35 mm on a sensor of 36 mm, 6000 px across: pixels
# a degree at the centre, and in a corner, where a pan shifts the picture most.
CENTRE = math.radians(1) * 35 * 6000 / 36
CORNER = CENTRE * math.hypot(1 + (18 / 35) ** 2, 18 * 12 / 35**2)
VIEW = 2 * math.degrees(math.atan(18 / 35))
G = 9.80665
# On the carriage: itself, an adapter and the body. On the tripod: rail, adapter and body.
RIDING_KG = (320 + 12 + 680) / 1000
STANDING_KG = (1900 + 12 + 680) / 1000
ALL_KG = 2.1 + STANDING_KG
# The carriage's place from the tripod with the slide at nought: half the rail, its end margin and half the carriage.
LOW_END_MM = -1040 / 2 + 15 + 100 / 2
# Two solid rods of 15 mm; the carriage hangs out on both sides, looking square to the rail.
RODS_MM4 = 2 * math.pi * 15**4 / 64
ENDS = (LOW_END_MM + 20) ** 2 + (LOW_END_MM + 880) ** 2
HANGS_OUT_RAD = RIDING_KG * G * ENDS / (2 * 69_000 * RODS_MM4)
# The belt's pulley: twenty teeth two millimetres apart.
PULLEY_MM = 20 * 2 / math.tau


def uphill_n(deg: float) -> float:
    return RIDING_KG * (G * (math.sin(math.radians(deg)) + 0.05 * math.cos(math.radians(deg))) + 80 / 1000)


def downhill_n(deg: float) -> float:
    return RIDING_KG * G * (math.sin(math.radians(deg)) - 0.05 * math.cos(math.radians(deg)))


def beyond(doubt: float) -> float:
    """How far off the rail two aims 800 mm apart cross, both off by so many degrees towards or from one another."""
    return 800 / (math.tan(math.radians(33.69 + doubt)) - math.tan(math.radians(7.595 - doubt)))


def drift(frame: int) -> float:
    """How far a post at (1000, 1500) stands off the middle while pan and slide go evenly, in shares of the width."""
    share = frame / 359
    aim = math.atan2(1000 - 800 * share, 1500) - math.radians(33.69 + (7.595 - 33.69) * share)
    return abs(math.tan(aim)) * 35 / 36


def buffered(
    frames: int = 1800, beat: float = 2, write: float = 3.2, room: int = 22, starts: tuple[float, ...] = (0,)
) -> tuple[int, int, int]:
    """Frames until a buffer is full, frames that are not whole and pictures lost: each written after the one before."""
    waiting: list[float] = []
    free, spoilt = 0.0, []
    for frame in range(frames):
        for now in (frame * beat + start for start in starts):
            waiting = [done for done in waiting if done > now + 1e-9]
            if len(waiting) >= room:
                spoilt.append(frame)
                continue
            free = max(free, now) + write
            waiting.append(free)
    return spoilt[0], len(set(spoilt)), len(spoilt)


BRACKETED = buffered(720, 5, 2, 6, tuple(number * (1 / 60 + 0.1) for number in range(5)))


# Magnus by hand: the logarithm of 94 % and what air at 6 °C adds.
GAMMA = math.log(0.94) + 17.62 * 6 / (243.12 + 6)
HAND: dict[str, dict[str, Any]] = {
    "holds-contradict": {"one": 3600 / 9, "other": 30 * 25},
    "rate-unusual": {"rate": 360 / 17},
    "ease-scaled": {"used_in": 359 * 3 / 4, "used_out": 359 / 4},
    "axis-too-slow": {"step": 900 / 3, "time": 300 / 25 + 25 / 80},
    "event-outside": {"finish": 1790485800 + 3600},
    "hardly-changes": {"change": 9 / 7200 * 3600, "share": 4.5 / 6000},
    "noise-reduction-costs": {"without": math.ceil((3 + 0.06 + 0.6) / 0.9 * 10) / 10},
    "smear-visible": {"smear": 40 / 359 / 10 * 4 * CORNER},
    "buffer-stalls": {"kept": buffered()[0], "lost": buffered()[1], "clock": 1790485800 + 2 * buffered()[0]},
    "buffer-stalls-in-part": {"kept": BRACKETED[0], "lost": BRACKETED[1], "pictures": BRACKETED[2]},
    "follows-out-of-travel": {"position": 180 + math.degrees(math.atan2(400, 50))},
    "mark-drifts": {"error": max(map(drift, range(360))), "frame": str(1 + max(range(360), key=drift))},
    "move-quick": {"shift": 40 / 89 * CORNER, "share": 40 / 89 * CORNER / 6000},
    "move-strobes": {"shift": 40 / 29 * CORNER, "share": 40 / 29 * CORNER / 6000},
    "move-too-small": {"shift": 0.3 * CORNER, "share": 0.3 * CORNER / 6000},
    "slide-unseen": {"parallax": 800 * 35 * 6000 / 36 / 900_000},
    "mark-elsewhere": {"near": beyond(0.5), "far": beyond(-0.5)},
    "ends-beside": {"out": math.tan(math.radians(32)) * 35 / 36 - 0.5},
    # The rail's end lies square to the lens: in the picture from where half the view reaches it.
    "rig-in-picture": {"first": str(1 + math.ceil((90 - math.degrees(math.atan(18 / 12))) / 60 * 359))},
    "picture-enlarged": {"kept": 0.4 * 6000, "times": 3840 / 2400},
    "round-out-of-travel": {"position": -65 / 2},
    "live-too-fast": {"speed": 900 / 3},
    "supply-too-weak": {"drawn": 1.4},
    "lead-too-thin": {"lost": 2 * 0.0172 * 12 * 1.4 / 0.14},
    "overload": {"load": STANDING_KG * 1000},
    "rig-tips": {
        "at": -75 * ALL_KG / RIDING_KG - LOW_END_MM,
        "over": -(LOW_END_MM + 20) * RIDING_KG / ALL_KG - 75,
        "hold": 150 / 2,
    },
    "rail-sags": {"pixels": math.tan(HANGS_OUT_RAD) * 3000},
    "carriage-strikes": {"usable": 900 - 100 - 2 * 15},
    "motor-too-weak": {"needed": uphill_n(60) * PULLEY_MM / 0.9},
    "rail-lets-go": {"pull": downhill_n(60) * PULLEY_MM},
    "shaft-overload": {"torque": 0.680 * G * 35},
    "horizon-tilts": {"pixels": math.tan(math.radians(2)) * 6000},
    "steps-uneven": {"steps": 8 / 359 * 400 * 5.3 / 360, "pixels": CENTRE * 360 / (400 * 5.3), "ripple": 1.0},
    "sweep-differs": {"time": 359 * 10, "does": 4 * 3590 / 60, "end": round(4 * 3590 / 60, 3)},
    "sweep-nearly": {"end": round(0.251 * 0.5 * 3590 / 60, 3), "miss": 1 - 0.251 * 0.5 * 3590 / 60 / 7.7},
    "rate-out-of-range": {"wanted": 3000 / 3590 * 60, "low": 0.251 * 0.5, "high": 2.01 * 16},
    "scale-too-coarse": {"pace": 30 / 359, "every": "12"},
    "handles-do-not-absorb": {"between": 20, "first": 20 / 10},
    # 270 frames in 90 minutes; from frame 127 on it is darker than the 4 stops that can be mended below f/8, 1/125 s.
    "locked-out-of-latitude": {"frames": 270, "outside": 144},
    "automatic-flickers": {"strays": 1 / 3},
    "filter-beyond-the-shoot": {"stops": 3, "first": "900", "frames": 90},
    "lens-dews-over": {"air": 6, "dew": round(243.12 * GAMMA / (17.62 - GAMMA), 1)},
    "polariser-bands": {"view": math.degrees(2 * math.atan(18 / 35)) + 40},
    # A pin has 25 Ω inside, the light 5; a coil is what its voltage and its current say.
    "light-too-weak": {"flows": (3.3 - 1.2) / (4700 + 5 + 25) * 1000},
    "coil-too-weak": {"flows": 3.3 / (5 / 0.004 + 25) * 1000},
    "pin-overloaded": {"flows": 12 / (5 / 0.07 + 25) * 1000},
    # Five volts behind 25 Ω against three behind two pull-ups of 20 kΩ, focus and shutter joined.
    "foreign-voltage": {"volts": 5 - 2 / (10_000 + 25.01) * 25.01 - 3.3},
    "ground-lifted": {"lifted": 18 / 12 * 0.15 * 5},
    "camera-asleep": {"wake": 0.4, "heard": 0.2},
    "dwell-too-short": {"closed": 0.06 + 1 / 60},
    "press-not-released": {"until": 0.4 + 12},
    "warm-up-not-in-beat": {"left": 0.4 + 0.06},
    # Beside 2.68 s of work a beat leaves 7.32 s, half of it on either side of the move, and a hand's start is off by half
    # a second; the clocks come apart by 0.05 s a beat.
    "shutter-falls-into-move": {"frame": str(1 + math.floor(((10 - 2.6766667) / 2 - 0.5) / 0.05))},
}
FIXED: dict[str, tuple[int, str, Any]] = {
    "lamps-pulse": (0, "steady", 1 / 100),
    "event-outside": (0, "held", 1790515200 - 3600 * 2 / 3),
    "live-too-fast": (0, "longer", 36.1),
    "mark-elsewhere": (0, "off", round(beyond(0))),
    "rig-tips": (1, "stop", 109),
    "shaft-overload": (0, "balanced", math.floor(100 / (0.680 * G) * 10) / 10),
    "horizon-tilts": (0, "level", math.floor(math.degrees(math.atan(12 / 6000)) * 100) / 100),
    "rate-out-of-range": (0, "exact", round(3000 / 32.16 * 60 / 359, 3)),
    "sweep-differs": (0, "there", round(4 * 359 * 5 / 60, 3)),
    "picture-enlarged": (1, "share", 3840 / 6000),
    # 3.3 V less 1.2 V over half as much again as 5 mA, less the light's and the pin's own: the next below as sold.
    "light-too-weak": (0, "ohms", 220),
    "foreign-voltage": (0, "ohms", 470),
    "press-too-short": (0, "press", 0.2),
    "press-not-released": (0, "press", 5),
    "warm-up-not-in-beat": (0, "warm", 1 - 0.06),
    "pass-too-short": (0, "shortest", math.ceil((5 + 0.06 + 0.6) / 0.9 * 10) / 10),
}
# Fixes that go as far as they must and no further: so much more, and the snag is back. By how much, and at which path.
JUST: dict[str, tuple[int, float]] = {
    "motor-too-weak": (0, 0.2),
    "rail-lets-go": (0, 0.2),
    "shaft-overload": (0, 0.2),
    "horizon-tilts": (0, 0.01),
    "carriage-strikes": (0, 1.0),
    "out-of-travel": (0, 0.1),
    "axis-too-slow": (1, 1.0),
    "lens-soft": (0, 600),
    "picture-enlarged": (0, 200),
}


class ByHand(TestCase):
    def test_the_numbers_are_those_of_a_pencil(self) -> None:
        for code, wanted in HAND.items():
            slots = found(code).slots
            for name, value in wanted.items():
                with self.subTest(code, slot=name):
                    self._alike(slots[name].value, value)

    def test_so_are_those_of_the_fixes(self) -> None:
        for code, (number, name, value) in FIXED.items():
            with self.subTest(code):
                self._alike(found(code).fixes[number].slots[name].value, value)

    def _alike(self, said: float | str, wanted: float | str) -> None:
        if isinstance(wanted, str) or isinstance(said, str):
            self.assertEqual(said, wanted)
        else:
            self.assertAlmostEqual(said, wanted, delta=1e-6 * max(1.0, abs(wanted)))

    def test_a_fix_goes_as_far_as_it_must_and_no_further(self) -> None:
        for code, (number, more) in JUST.items():
            snag = found(code)
            edits = list(snag.fixes[number].edits)
            last = edits[-1]
            if not isinstance(last.value, int | float):
                continue
            with self.subTest(code):
                worse = [*edits[:-1], last.model_copy(update={"value": type(last.value)(last.value + more)})]
                after = evaluate(apply(PROVOKE[code], worse)[0])
                self.assertIn((snag.code, snag.path), {(other.code, other.path) for other in after.snags})
