(function() {
	// src/leading/core/audioClock.ts
	/** All is put on its clock beforehand, so that the largest buffers do: a busy machine then misses no beat. */
	var newContext = () => new AudioContext({ latencyHint: "playback" });
	/** Readings count for so long, in milliseconds: a device that missed a beat is soon found out, and two crystals never part. */
	var COUNTS = 1200;
	/** Where a hidden tab takes fewer, the last ones count however old. */
	var LEAST = 5;
	var EVERY$2 = 50;
	/**
	* Where a moment of the class lies on the clock of the sound: what is put there is heard then, through whatever buffers lie between. A
	* reading is never ahead of the truth, but may be late; the earliest of the last few is the truest.
	*/
	var AudioClock = class {
		context;
		now;
		readings = [];
		timer;
		/** @param now milliseconds since 1970, as the class has them, with their fractions */
		constructor(context, now) {
			this.context = context;
			this.now = now;
			this.look();
			this.timer = setInterval(() => this.look(), EVERY$2);
		}
		close() {
			clearInterval(this.timer);
		}
		/** Seconds of the context at which to begin what is to be heard at this moment of the class; not before now. */
		at(moment) {
			this.look();
			const truest = Math.max(...this.readings.map((r) => r.reading));
			return Math.max(this.context.currentTime, (performance.now() + moment - this.now() + truest) / 1e3);
		}
		look() {
			const taken = performance.now();
			this.readings.push({
				taken,
				reading: this.heardNow(taken) - taken
			});
			while (this.readings.length > LEAST && this.readings[0].taken < taken - COUNTS) this.readings.shift();
		}
		/** Milliseconds on the context's clock of what is heard just now; where the browser does not say, by what it gives as its latency. */
		heardNow(now) {
			const { contextTime = 0, performanceTime = 0 } = this.context.getOutputTimestamp();
			return contextTime > 0 && performanceTime > 0 ? contextTime * 1e3 + now - performanceTime : (this.context.currentTime - (this.context.outputLatency || 0)) * 1e3;
		}
	};
	// src/leading/core/fold.ts
	var BACK_GRACE = 2e3;
	function fold(commands, scenes) {
		return commands.reduce((state, command) => apply(state, command, scenes), {
			phase: "ready",
			position: 0,
			at: 0,
			added: scenes.map(() => 0),
			opened: -1,
			leader: null
		});
	}
	/** Milliseconds added to the first `count` scenes. */
	var addedBefore = (added, count) => added.slice(0, Math.max(0, count)).reduce((sum, ms) => sum + ms, 0);
	/** End of a scene on the led timeline. */
	var endOf = (scenes, added, scene) => scene < 0 ? 0 : scenes[scene].end * 1e3 + addedBefore(added, scene + 1);
	function positionAt(state, moment, scenes) {
		if (state.phase !== "running") return state.position;
		return Math.min(state.position + Math.max(0, moment - state.at), limitOf(state, scenes));
	}
	var plannedOf = (scenes, scene) => 1e3 * (scenes[scene].end - (scene === 0 ? 0 : scenes[scene - 1].end));
	/** What a scene takes on the led timeline, in milliseconds. */
	var lengthOf = (scenes, added, scene) => plannedOf(scenes, scene) + added[scene];
	/** The next scene whose gate is closed; the number of scenes if there is none. A scene that was left out waits for nobody. */
	function nextGate(state, scenes) {
		const gate = scenes.findIndex((scene, i) => i > state.opened && scene.gated === true && lengthOf(scenes, state.added, i) > 0);
		return gate < 0 ? scenes.length : gate;
	}
	/** How far the class can run without a tap. */
	var limitOf = (state, scenes) => endOf(scenes, state.added, nextGate(state, scenes) - 1);
	/** The scene at a position; the last one at and past the end. */
	function sceneAt(position, scenes, added) {
		let extra = 0;
		for (let i = 0; i < scenes.length; i++) {
			extra += added[i];
			if (position < scenes[i].end * 1e3 + extra) return i;
		}
		return scenes.length - 1;
	}
	/** The state after one more command. */
	function apply(before, command, scenes) {
		const at = Math.max(command.at, before.at);
		const position = positionAt(before, at, scenes);
		const end = endOf(scenes, before.added, scenes.length - 1);
		const state = before.phase === "running" && position >= end ? {
			...before,
			phase: "finished",
			position: end,
			at: before.at + end - before.position
		} : before;
		const here = {
			...state,
			position,
			at
		};
		const scene = sceneAt(position, scenes, state.added);
		const underWay = state.phase === "running" || state.phase === "paused";
		switch (command.kind) {
			case "start": return state.phase === "ready" ? {
				...here,
				phase: "running",
				leader: command.device ?? state.leader
			} : state;
			case "pause": return state.phase === "running" ? {
				...here,
				phase: "paused"
			} : state;
			case "resume": return state.phase === "paused" || state.phase === "finished" ? {
				...here,
				phase: "running"
			} : state;
			case "finish": return underWay ? {
				...here,
				phase: "finished"
			} : state;
			case "go": return state.phase === "running" && position === limitOf(state, scenes) && position < end ? {
				...here,
				opened: scene
			} : state;
			case "skip": return underWay ? {
				...here,
				position: endOf(scenes, state.added, scene),
				opened: Math.max(state.opened, scene + 1)
			} : state;
			case "addTen": return underWay ? {
				...here,
				added: state.added.map((ms, i) => i === scene ? ms + 1e4 : ms)
			} : state;
			case "lessTen": return underWay ? {
				...here,
				added: shifted(here, scene, [{
					scene,
					by: -1e4
				}], scenes)
			} : state;
			case "adjust": return state.phase === "finished" ? state : {
				...here,
				added: shifted(here, scene, command.payload?.shifts ?? [], scenes)
			};
			case "jump": {
				const to = command.payload?.scene;
				if (state.phase === "ready" || to == null || to < 0 || to >= scenes.length) return state;
				return {
					...here,
					phase: state.phase === "finished" ? "paused" : state.phase,
					position: endOf(scenes, state.added, to - 1),
					opened: to > scene ? Math.max(state.opened, to) : Math.min(state.opened, to)
				};
			}
			case "note": return state;
			case "lead": return {
				...state,
				leader: command.device ?? state.leader
			};
			case "back": {
				if (state.phase === "ready") return state;
				const to = backFrom(position, scene, state, scenes);
				return {
					...here,
					phase: state.phase === "finished" ? "paused" : state.phase,
					position: to,
					opened: Math.min(state.opened, sceneAt(to, scenes, state.added))
				};
			}
		}
	}
	/** What is added to each scene after shifts: none of the past is moved, none gets shorter than nothing or than what has run. */
	function shifted(here, scene, shifts, scenes) {
		const added = [...here.added];
		for (const { scene: at, by } of shifts) {
			if (at < scene || at >= scenes.length) continue;
			const run = at === scene ? here.position - endOf(scenes, here.added, scene - 1) : 0;
			added[at] = Math.max(added[at] + by, run - plannedOf(scenes, at));
		}
		return added;
	}
	function backFrom(position, scene, state, scenes) {
		const start = endOf(scenes, state.added, scene - 1);
		return position - start > BACK_GRACE ? start : endOf(scenes, state.added, scene - 2);
	}
	// src/leading/core/sounding.ts
	/** What is missed by more than this, in milliseconds, is not made up for: a machine slept, or was busy. */
	var MISSED = 400;
	/** When it is on the led timeline, in milliseconds. */
	var ledAt = (it, added) => it.at * 1e3 + addedBefore(added, it.shift);
	/** What is about a scene that was left out, or has become too short for it, is neither rung nor said. */
	function stays(it, scenes, added) {
		if (it.scene == null) return true;
		if (lengthOf(scenes, added, it.scene) <= 0) return false;
		const at = ledAt(it, added);
		return it.shift > it.scene ? at >= endOf(scenes, added, it.scene - 1) : at <= Math.max(endOf(scenes, added, it.scene), endOf(scenes, added, it.scene - 1));
	}
	/** What is due after one place of the led timeline, up to and with another. */
	function due(all, scenes, added, after, until) {
		const found = [];
		for (const it of all) {
			const at = ledAt(it, added);
			if (at > after && at <= until && stays(it, scenes, added)) found.push([at, it]);
		}
		return found;
	}
	/** Which bells ring, and at which places; those long past are left out. */
	function bellsBetween(cues, scenes, state, position, after, until) {
		const limit = limitOf(state, scenes);
		return due(cues, scenes, state.added, Math.max(after, position - MISSED), until).filter(([at, cue]) => at < limit || cue.kind === "finish");
	}
	/** Chooses what is said as a class runs on: what is being said is never talked over. */
	var Caller = class {
		calls;
		scenes;
		state;
		through;
		left;
		busyUntil = -1;
		/** @param through where it has been on the led timeline: what came before is not said */
		constructor(calls, scenes, state, through, left = []) {
			this.calls = calls;
			this.scenes = scenes;
			this.state = state;
			this.through = through;
			this.left = left;
		}
		/** What begins now, at this place of the led timeline; null: nothing. */
		at(position) {
			const { added } = this.state;
			const limit = limitOf(this.state, this.scenes);
			const after = Math.max(this.through, position - MISSED);
			this.through = Math.max(this.through, position);
			let said = null;
			for (const [at, call] of due(this.calls, this.scenes, added, after, position)) {
				if (at >= limit && call.kind !== "end" && call.kind !== "gate") continue;
				if (at < this.busyUntil) continue;
				this.busyUntil = at + call.seconds * 1e3;
				said = call.kind === "minutes" ? this.asItStands(call, position) : call;
			}
			return said;
		}
		/** Minutes left are those of the class as it stands when they are said. */
		asItStands(call, position) {
			const seconds = (endOf(this.scenes, this.state.added, this.scenes.length - 1) - position) / 1e3;
			const text = this.left.find(({ under }) => seconds < under)?.words;
			return text ? {
				...call,
				text
			} : call;
		}
	};
	// src/leading/core/bells.ts
	/**
	* How far ahead sound is put on the audio clock, in milliseconds: longer than a hidden tab's timers are held back, or a busy
	* machine stalls.
	*/
	var AHEAD = 2500;
	var EVERY$1 = 300;
	/** A tap stops what was just about to ring: what rang this shortly before is not rung again. */
	var JUST = 60;
	/**
	* Rings while a class runs on in a state, scheduled ahead on the audio clock.
	* @param now milliseconds since 1970, as the class has them, with their fractions
	* @returns takes back what has not sounded yet
	*/
	function ringing({ bells = [], cues, scenes }, state, audio, now) {
		const pending = /* @__PURE__ */ new Set();
		const clock = new AudioClock(audio, now);
		let through = positionAt(state, Math.round(now()), scenes) - JUST;
		const schedule = () => {
			const moment = Math.round(now());
			const position = positionAt(state, moment, scenes);
			const until = position + AHEAD;
			for (const [at, cue] of bellsBetween(cues, scenes, state, position, through, until)) {
				const bell = bells.find(({ kind }) => kind === cue.kind);
				if (!bell) continue;
				for (const node of strike(audio, bell, clock.at(moment + at - position))) {
					pending.add(node);
					node.onended = () => pending.delete(node);
				}
			}
			through = Math.max(through, until);
		};
		schedule();
		const timer = setInterval(schedule, EVERY$1);
		return () => {
			clearInterval(timer);
			clock.close();
			for (const node of pending) node.stop();
		};
	}
	function strike(audio, bell, at) {
		return Array.from({ length: bell.strikes }, (_, n) => {
			const start = at + n * bell.apart;
			const node = audio.createOscillator();
			const gain = audio.createGain();
			node.frequency.value = bell.pitch;
			gain.gain.setValueAtTime(1e-4, start);
			gain.gain.exponentialRampToValueAtTime(.6, start + .01);
			gain.gain.exponentialRampToValueAtTime(1e-4, start + bell.length);
			node.connect(gain).connect(audio.destination);
			node.start(start);
			node.stop(start + bell.length + .02);
			return node;
		});
	}
	// src/leading/core/count.ts
	/**
	* The rep under way, or what is left with it where that is counted aloud; null: nothing is counted here.
	* @param into seconds into the scene
	*/
	function countAt({ reps, repSeconds, countsDown }, into) {
		if (!reps || !repSeconds) return null;
		const done = Math.min(reps - 1, Math.max(0, Math.floor(into / repSeconds)));
		return countsDown ? reps - done : done + 1;
	}
	// src/leading/takeAlong/page.ts
	/** Two skips so close together, in milliseconds, were one tap. */
	var DOUBLE = 600;
	/** How often it looks, in milliseconds. */
	var EVERY = 100;
	/** Of a class that was led longer ago, nothing is kept: it begins anew. */
	var FORGET = 216e5;
	var $ = (id) => document.getElementById(id);
	var data = JSON.parse($("class").textContent);
	var { scenes } = data;
	var offset = Date.now() - performance.now();
	var exactNow = () => offset + performance.now();
	var now = () => Math.round(exactNow());
	var commands = kept();
	var state = fold(commands, scenes);
	var audio = null;
	var silence = () => {};
	var caller = null;
	var shownCards = "";
	var place = () => positionAt(state, Math.max(now(), state.at), scenes);
	var end = () => endOf(scenes, state.added, scenes.length - 1);
	/** The taps of this class, so that a reload goes on where it was. */
	function kept() {
		try {
			const { key, taps } = JSON.parse(localStorage.getItem("halterion.page") ?? "{}");
			return key === data.key && taps?.length && now() - taps.at(-1).at < FORGET ? taps : [];
		} catch {
			return [];
		}
	}
	function keep() {
		try {
			localStorage.setItem("halterion.page", JSON.stringify({
				key: data.key,
				taps: commands
			}));
		} catch {}
	}
	function tap(kind, payload) {
		const last = commands.at(-1);
		if (kind === "skip" && last?.kind === "skip" && now() - last.at < DOUBLE) return;
		try {
			audio ??= newContext();
			audio.resume();
		} catch {}
		commands = [...commands, {
			id: String(commands.length),
			kind,
			at: Math.max(now(), state.at),
			payload
		}];
		keep();
		enter(fold(commands, scenes));
	}
	/** What sounds and is said belongs to a state: another begins it anew. */
	function enter(next) {
		state = next;
		silence();
		const runs = state.phase === "running";
		silence = runs && audio ? ringing(data, state, audio, exactNow) : () => {};
		caller = runs ? new Caller(data.calls, scenes, state, place() - 1, data.left) : null;
		if (!runs) window.speechSynthesis?.cancel();
		show();
	}
	function say(call) {
		$("said").textContent = call.text;
		if (!$("voice").checked) return;
		if (!window.speechSynthesis?.getVoices().length) return playAll(call.clips ?? []);
		const words = new SpeechSynthesisUtterance(call.text);
		words.rate = 1.15;
		speechSynthesis.speak(words);
	}
	function playAll([word, ...rest]) {
		if (word === void 0) return;
		const sound = data.clips?.[word];
		if (!sound) return playAll(rest);
		const player = new Audio(sound);
		player.onended = () => playAll(rest);
		player.play().catch(() => void 0);
	}
	var clockWords = (milliseconds) => {
		const seconds = Math.max(0, Math.ceil(milliseconds / 1e3));
		return seconds < 60 ? String(seconds) : `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
	};
	/** What the one main button does now. */
	function mainAct() {
		if (state.phase === "ready") return ["start", "Start the class"];
		if (state.phase !== "running" || place() >= end()) return ["resume", "Carry on"];
		return place() >= limitOf(state, scenes) ? ["go", "Go"] : ["pause", "Pause"];
	}
	function show() {
		const at = place();
		const i = sceneAt(at, scenes, state.added);
		const scene = scenes[i];
		const over = state.phase === "finished" || at >= end();
		const write = (id, text) => {
			if ($(id).textContent !== text) $(id).textContent = text;
		};
		write("block", over ? data.title : scene.blockName);
		write("round", scene.round);
		write("left", `${clockWords(end() - at)} to go`);
		const ahead = !over && scene.ahead;
		const count = over || ahead ? null : countAt(scene, (at - endOf(scenes, state.added, i - 1)) / 1e3);
		write("now", ahead ? scene.headline : "");
		write("head", over ? "That’s it. Well done." : ahead ? `Next: ${scene.title}` : scene.headline);
		write("what", over ? "" : [scene.target, scene.load].filter(Boolean).join(", "));
		write("side", over ? "" : [scene.sideWords, scene.hand].filter(Boolean).join(", "));
		write("others", over ? "" : scene.others ?? "");
		write("count", count === null ? "" : String(count));
		write("clock", over ? "" : clockWords(endOf(scenes, state.added, i) - at));
		write("next", over || ahead ? "" : `Next: ${scene.next}`);
		$("bar").max = end() / 1e3;
		$("bar").value = at / 1e3;
		write("main", mainAct()[1]);
		$("goTo").disabled = state.phase === "ready";
		$("anew").disabled = commands.length === 0 || state.phase === "running" && !over;
		if (scene.cards.join() !== shownCards) showCards(scene.cards);
	}
	function showCards(cards) {
		shownCards = cards.join();
		$("cards").toggleAttribute("data-one", cards.length === 1);
		$("cards").replaceChildren(...cards.map((index, n) => {
			const card = data.cards[index];
			const box = document.createElement("article");
			box.innerHTML = card.figure === void 0 ? "" : data.figures[card.figure];
			const line = (tag, text) => {
				const words = document.createElement(tag);
				words.textContent = text;
				box.append(words);
			};
			if (cards.length > 1) line("p", `${n + 1}  ${card.name}, ${card.target}`);
			else line("p", card.main);
			if (cards.length === 1 && card.cue) line("small", card.cue);
			if (card.easier.length > 0) line("small", `easier: ${card.easier.join(" · ")}`);
			if (card.harder.length > 0) line("small", `harder: ${card.harder.join(" · ")}`);
			return box;
		}));
	}
	/** The places that one may want to go to: each scene that has a name of its own. */
	function places() {
		const list = $("where");
		scenes.forEach((scene, i) => {
			if (i > 0 && scene.headline === scenes[i - 1].headline && scene.round === scenes[i - 1].round) return;
			const option = document.createElement("option");
			option.value = String(i);
			option.textContent = [
				scene.headline,
				scene.sideWords,
				scene.round
			].filter(Boolean).join(", ");
			list.append(option);
		});
		$("goTo").onclick = () => tap("jump", { scene: Number(list.value) });
	}
	$("main").onclick = () => tap(mainAct()[0]);
	$("skip").onclick = () => tap("skip");
	$("back").onclick = () => tap("back");
	$("more").onclick = () => tap("addTen");
	$("anew").onclick = () => {
		commands = [];
		keep();
		enter(fold([], scenes));
	};
	var keys = {
		" ": "main",
		ArrowRight: "skip",
		ArrowLeft: "back",
		"+": "more"
	};
	addEventListener("keydown", (event) => {
		const button = keys[event.key];
		if (!button || event.target instanceof HTMLElement && event.target.closest("select, input")) return;
		event.preventDefault();
		if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
		$(button).click();
	});
	places();
	enter(state);
	addEventListener("pointerdown", () => {
		if (audio || state.phase !== "running") return;
		audio = newContext();
		enter(state);
	});
	setInterval(() => {
		const call = caller?.at(place());
		if (call) say(call);
		show();
	}, EVERY);
})();
