<script lang="ts">
    import { Checkbox } from 'flowbite-svelte';
    import { Play, Square } from '@lucide/svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import { untrack } from 'svelte';
    import type { Resources } from '../../api/client';
    import { findRecords } from '../../api/records';
    import Choose from '../../parts/Choose.svelte';
    import Floating from '../../parts/Floating.svelte';
    import type { Option } from '../../parts/options';
    import VerdictCard from '../../parts/VerdictCard.svelte';
    import type { Document } from '../../state/document.svelte';
    import { moment } from '../../state/moments';
    import FieldSetter from './FieldSetter.svelte';
    import Hint from '../../parts/Hint.svelte';
    import KeepProof from './KeepProof.svelte';
    import PaperRows from './PaperRows.svelte';
    import Scrub from './Scrub.svelte';
    import WhatIfs from './WhatIfs.svelte';
    import { Rehearsal, type Opening } from './rehearsal.svelte';

    let { rule, page }: { rule: Resources['RuleResource']; page: Document } = $props();
    // svelte-ignore state_referenced_locally
    const rehearsal = new Rehearsal(page, rule.id);
    const played = $derived(rehearsal.played);
    let anchor = $state<HTMLElement | null>(null);
    let changing = $state<'record' | 'opening' | 'values' | 'proof' | null>(null);
    let typed = $state('');
    const records = createQuery(() => ({
        queryKey: ['offer', rule.on, typed],
        enabled: changing === 'record',
        queryFn: () => findRecords(rule.on, typed),
        placeholderData: (before) => before,
    }));
    let at = $state(0);
    let opened = $state(false);

    // The rule as it is written now, a moment after the last stroke.
    $effect(() => {
        void page.file;
        const unfinished = page.reading.problems.length > 0;
        const timer = setTimeout(
            () => untrack(() => !unfinished && rehearsal.play()),
            untrack(() => (rehearsal.played ? 200 : 0)),
        );
        return () => clearTimeout(timer);
    });
    $effect(() => {
        if (played) at = Date.parse(played.until);
    });

    const options = $derived<Option[]>([
        { key: 'pick:matched', label: 'The last that matched', group: 'Picked for you' },
        { key: 'pick:nearly', label: 'One that nearly matched', group: 'Picked for you' },
        { key: 'pick:made_up', label: 'Make one up', group: 'Picked for you' },
        ...(records.data ?? []).map((record) => ({ key: String(record.id), label: record.title, hint: record.number, group: 'Records' })),
    ]);

    function open(which: typeof changing, event: Event) {
        anchor = event.currentTarget as HTMLElement;
        changing = which;
        typed = '';
    }

    function choose(key: string) {
        changing = null;
        rehearsal.choose(key.startsWith('pick:') ? { pick: key.slice(5) } : { id: Number(key) });
    }

    let playing = $state(false);

    /** Lets the pretend clock run from the beginning to the end in a few seconds; once more stops it. */
    function run() {
        if (!played || playing) return void (playing = false);
        const [from, until] = [Date.parse(played.from), Date.parse(played.until)];
        const began = performance.now();
        playing = true;
        const step = (now: number) => {
            if (!playing) return;
            const share = Math.min(1, (now - began) / 5000);
            at = from + (until - from) * share;
            if (share < 1) requestAnimationFrame(step);
            else playing = false;
        };
        requestAnimationFrame(step);
    }

    const opening = $derived(played?.opening as Opening | undefined);
    const fires = $derived(played?.why?.reason === 'fires');
    const PICKED: Record<string, string> = { matched: 'the last that matched', nearly: 'nearly matched', made_up: 'made up', chosen: '' };
    let pick = $state('');
    $effect(() => {
        if (played && played.pick !== 'chosen') pick = played.pick;
    });
    const lastId = $derived(played?.record.id);
    let pickedId = $state<number>();
    $effect(() => {
        if (played && played.pick !== 'chosen') pickedId = played.record.id;
    });
    const how = $derived(lastId === pickedId ? (PICKED[pick] ?? '') : '');
    const isMadeUp = $derived(lastId === pickedId && pick === 'made_up');
    /** Values were proposed that the record has not: whoever looks at it has to know. */
    const supposes = $derived(rehearsal.opening === null && !isMadeUp && Object.keys({ ...opening?.was, ...opening?.set }).length > 0);
</script>

<div class="p-5 pl-6" data-rehearsal={rehearsal.busy ? 'busy' : 'done'}>
    {#if page.reading.problems.length && !played}
        <div class="empty">
            <h2>The rule is not finished.</h2>
            <p>Once its sentence is complete, its whole life on a record is played here, without waiting for it.</p>
        </div>
    {:else if rehearsal.trouble && !played}
        <div class="callout bad">{rehearsal.trouble}</div>
        <div class="mt-3"><button type="button" class="btn" onclick={() => choose('pick:made_up')}>Make a record up</button></div>
    {:else if !played}
        <p class="mini py-10 text-center">Playing the rule…</p>
    {:else}
        {#if page.reading.problems.length}
            <p class="mini mb-2">The rule is unfinished; this is how it went before.</p>
        {/if}
        {#if rehearsal.trouble}<div class="callout bad mb-3">{rehearsal.trouble}</div>{/if}
        <button
            type="button"
            class="boxed flex items-baseline gap-2 text-left"
            title={how ? `Picked: ${how}. Choose another record.` : 'Choose another record'}
            onclick={(event) => open('record', event)}
        >
            <b class="font-semibold whitespace-nowrap">{isMadeUp ? 'Made up' : played.record.number}</b>
            <span class="min-w-0 flex-1 truncate">{isMadeUp ? '' : played.record.title}</span>
            <span class="mini whitespace-nowrap">change</span>
        </button>
        <div class="mt-2 flex items-baseline gap-2 text-[13px]">
            <span class="mini shrink-0">First</span>
            <button type="button" class="w v text-left" onclick={(event) => open('opening', event)}>{played.openingSaid}</button>
            <span class="mini whitespace-nowrap">{moment(played.from)}</span>
            <button type="button" class="icon ml-auto shrink-0" aria-label={playing ? 'Stop' : 'Let it play'} onclick={run}
                >{#if playing}<Square size={13} />{:else}<Play size={14} />{/if}</button
            ><Hint>{playing ? 'Stop' : 'Let it play'}</Hint>
            {#if isMadeUp}
                <button type="button" class="link text-[12.5px] whitespace-nowrap" onclick={(event) => open('values', event)}
                    >its values</button
                >
            {/if}
        </div>
        {#if supposes}
            <p class="mini mt-1">
                Supposed, so that the rule starts: {played.record.number} is not so now.
                <button type="button" class="link" onclick={() => opening && rehearsal.begin({ ...opening, was: {}, set: {} })}
                    >Take it as it is</button
                >
            </p>
        {/if}
        {#if played.why && !fires}
            <div class="callout warn mt-3">
                {played.why.sentence}
                <button type="button" class="link" aria-expanded={opened} onclick={() => (opened = !opened)}>Why?</button>
                {#if opened}<div class="mt-1"><VerdictCard verdict={played.why} /></div>{/if}
            </div>
        {/if}
        <Scrub {played} whatIfs={rehearsal.whatIfs} bind:at onmove={(next) => rehearsal.suppose(next)} />
        <WhatIfs {rehearsal} type={rule.on} {at} />
        <PaperRows {played} {at} />
        <div class="callout mt-4" data-tally>
            <b class="font-semibold text-ink">{played.tally.said.charAt(0).toUpperCase() + played.tally.said.slice(1)}.</b>
            {#if played.tally.ends.length}In the end {played.tally.ends.join(', ')}.{/if}
            {#if played.without}
                <br />Without {rehearsal.whatIfs.length === 1 ? 'the what-if' : 'the what-ifs'}: {played.without.said}{played.without.ends
                    .length
                    ? `; in the end ${played.without.ends.join(', ')}`
                    : ''}.
            {/if}
            {#if played.goesOn}<br />It would go on after {moment(played.until)}.{/if}
        </div>
        <div class="mt-3 flex flex-wrap items-center gap-3">
            <button type="button" class="btn" onclick={(event) => open('proof', event)}>Keep as a proof</button>
            <button type="button" class="link text-[12.5px]" onclick={() => choose(fires ? 'pick:nearly' : 'pick:matched')}
                >{fires ? 'Why not one that nearly matched?' : 'Take one that matches'}</button
            >
            <label class="mini ml-auto flex items-center gap-1.5"
                ><Checkbox checked={rehearsal.others} onchange={() => rehearsal.toggleOthers()} /> with the other rules</label
            >
        </div>
    {/if}
</div>

{#if changing && anchor}
    <Floating {anchor} label="Rehearse" onclose={() => (changing = null)}>
        {#if changing === 'record'}
            <Choose
                title="Record"
                {options}
                onsearch={(text) => (typed = text)}
                onchoose={([key]) => choose(key ?? '')}
                onclose={() => (changing = null)}
            />
        {:else if changing === 'opening' && opening}
            <FieldSetter
                title="What happens first"
                type={rule.on}
                values={opening.set}
                at={opening.at}
                onreset={() => {
                    changing = null;
                    rehearsal.begin(null);
                }}
                ondone={(set, at_) => {
                    changing = null;
                    rehearsal.begin({ ...opening, set, at: at_ ?? opening.at });
                }}
            />
        {:else if changing === 'values' && played}
            <FieldSetter
                title="Values of the made-up record"
                type={rule.on}
                values={played.record.values}
                whole
                ondone={(set) => {
                    changing = null;
                    rehearsal.choose({ values: { ...played.record.values, ...set } });
                }}
            />
        {:else if changing === 'proof'}
            <KeepProof {rule} {page} {rehearsal} onclose={() => (changing = null)} />
        {/if}
    </Floating>
{/if}
