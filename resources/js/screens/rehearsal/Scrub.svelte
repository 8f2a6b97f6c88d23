<script lang="ts">
    import { day, localDay, longMoment, moment } from '../../state/moments';
    import type { Played, WhatIf } from './rehearsal.svelte';

    type Props = { played: Played; whatIfs: WhatIf[]; at: number; onmove: (whatIfs: WhatIf[]) => void };
    let { played, whatIfs, at = $bindable(), onmove }: Props = $props();
    let bar = $state<HTMLElement>();
    let dragged = $state<{ index: number; at: number } | null>(null);

    const HOUR = 3_600_000;
    const from = $derived(Date.parse(played.from));
    const moments = $derived([
        ...played.struck.map((line) => line.due),
        ...played.left.map((line) => line.due),
        ...played.entries.map((entry) => entry.entry.at),
    ]);
    const until = $derived(
        Math.max(Date.parse(played.until), from + HOUR, ...moments.map((moment_) => (moment_ ? Date.parse(moment_) : 0))),
    );
    const place = (ms: number) => 2 + (96 * (ms - from)) / (until - from);
    const inInk = $derived([...new Set(played.entries.filter((one) => one.own && !one.whatIf).map((one) => Date.parse(one.entry.at)))]);
    const inPencil = $derived([
        ...new Set([...played.struck, ...played.left].filter((line) => line.own && line.due).map((line) => Date.parse(line.due ?? ''))),
    ]);
    const marks = $derived(
        whatIfs.map((whatIf, index) => ({
            index,
            at: dragged?.index === index ? dragged.at : Date.parse(whatIf.kind === 'holiday' ? `${whatIf.day}T12:00:00Z` : whatIf.at),
            said: played.whatIfs[index] ?? '',
        })),
    );
    // Labels only where there is room for them.
    const labels = $derived.by(() => {
        const kept: number[] = [];
        for (const ms of [...inInk, ...inPencil].sort((one, other) => one - other))
            if (kept.every((other) => Math.abs(place(ms) - place(other)) > 14)) kept.push(ms);
        return kept;
    });

    function msAt(event: PointerEvent): number {
        const box = bar?.getBoundingClientRect();
        if (!box) return from;
        const share = ((event.clientX - box.left) / box.width) * 100;
        return Math.round(Math.min(until, Math.max(from, from + ((share - 2) / 96) * (until - from))) / (HOUR / 4)) * (HOUR / 4);
    }

    function moved(index: number, ms: number) {
        const at_ = new Date(ms).toISOString();
        onmove(
            whatIfs.map((whatIf, place_) => {
                if (place_ !== index) return whatIf;
                if (whatIf.kind === 'holiday') return { ...whatIf, day: at_.slice(0, 10) };
                if (whatIf.kind === 'away') {
                    const length = Date.parse(whatIf.until) - Date.parse(whatIf.at);
                    return { ...whatIf, at: at_, until: new Date(ms + length).toISOString() };
                }
                return { ...whatIf, at: at_ };
            }),
        );
    }

    function grab(event: PointerEvent, index: number) {
        (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
        dragged = { index, at: msAt(event) };
    }

    function drop() {
        if (dragged) moved(dragged.index, dragged.at);
        dragged = null;
    }

    function key(event: KeyboardEvent, index: number, ms: number) {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
        if (!by) return;
        event.preventDefault();
        moved(index, ms + by * HOUR * (event.shiftKey ? 1 : 24));
    }
</script>

<div class="scrub" bind:this={bar}>
    <div class="axis"></div>
    <div class="axis lived" style="width: {place(Math.min(at, until))}%"></div>
    {#each inInk as ms (ms)}<i class={ms > at ? 'ahead' : ''} style="left: {place(ms)}%" title={longMoment(new Date(ms))}></i>{/each}
    {#each inPencil as ms (ms)}<i class="ahead" style="left: {place(ms)}%" title={longMoment(new Date(ms))}></i>{/each}
    {#each labels as ms (ms)}<em style="left: {Math.min(94, Math.max(6, place(ms)))}%">{day(localDay(new Date(ms)))}</em>{/each}
    <input
        type="range"
        aria-label="Moment on the pretend clock"
        aria-valuetext={moment(new Date(at))}
        min={from}
        max={until}
        step={HOUR / 4}
        value={at}
        oninput={(event) => (at = Number(event.currentTarget.value))}
    />
    {#each marks as mark (mark.index)}
        {#if mark.at >= from && mark.at <= until}
            <button
                type="button"
                class="mark"
                style="left: {place(mark.at)}%"
                data-mark={mark.index}
                aria-label="{mark.said}, {moment(new Date(mark.at))}. Arrow keys move it by a day, with Shift by an hour."
                title="Drag it in time"
                onpointerdown={(event) => grab(event, mark.index)}
                onpointermove={(event) => dragged && (dragged = { index: mark.index, at: msAt(event) })}
                onpointerup={drop}
                onkeydown={(event) => key(event, mark.index, mark.at)}
            >
                <span class={place(mark.at) > 70 ? 'end' : place(mark.at) < 25 ? 'start' : ''}
                    >{moment(new Date(mark.at))}, {mark.said}</span
                >
            </button>
        {/if}
    {/each}
</div>
