<script lang="ts">
    import { inFigures } from '../../state/numbers';
    import { api, ask, said, stream, type Resources } from '../../api/client';
    import Floating from '../../parts/Floating.svelte';
    import type { Document } from '../../state/document.svelte';
    import { day, moment } from '../../state/moments';
    import { clock, session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { counted, within } from '../../state/words';

    type Fire = { record: number; entry: number; at: string; how: 'both' | 'appears' | 'vanishes'; title: string | null };
    type Piece = {
        final: boolean;
        hasPage: boolean;
        types: string[];
        records: number;
        of: number;
        changes: number;
        fires: number;
        otherFires: number;
        appear: number;
        vanish: number;
        heldBack: number;
        weeks: Record<string, number>;
        otherWeeks: Record<string, number>;
        list: Fire[];
        played?: number;
        tasks?: Record<string, number>;
        messages?: Record<string, number>;
        clashes?: Record<string, number>;
    };

    let { rule, page }: { rule: Resources['RuleResource']; page: Document } = $props();
    const SPANS = [
        { days: 28, label: '4 weeks' },
        { days: 91, label: '3 months' },
        { days: 365, label: 'a year' },
        { days: 0, label: 'all of it' },
    ];
    let days = $state(91);
    let piece = $state.raw<Piece | null>(null);
    let running = $state<AbortController | null>(null);
    let stopped = $state(false);
    let show = $state<'all' | 'appears' | 'vanishes'>('all');
    let then = $state.raw<{ fire: Fire; record: Resources['RecordResource'] } | null>(null);
    let anchor = $state<HTMLElement | null>(null);

    const weeks = $derived.by(() => {
        const names = [...Object.keys(piece?.weeks ?? {}), ...Object.keys(piece?.otherWeeks ?? {})].sort();
        const all: string[] = [];
        if (names.length)
            for (
                let at = Date.parse(`${names[0]}T00:00:00Z`);
                at <= Date.parse(`${names[names.length - 1]}T00:00:00Z`);
                at += 7 * 86_400_000
            )
                all.push(new Date(at).toISOString().slice(0, 10));
        return all;
    });
    const most = $derived(Math.max(1, ...Object.values(piece?.weeks ?? {}), ...Object.values(piece?.otherWeeks ?? {})));
    const listed = $derived((piece?.list ?? []).filter((fire) => show === 'all' || fire.how === show));
    const differs = $derived((piece?.appear ?? 0) + (piece?.vanish ?? 0) > 0);

    async function start() {
        const abort = new AbortController();
        running = abort;
        stopped = false;
        piece = null;
        const from = days ? new Date(clock.now.getTime() - days * 86_400_000).toISOString() : undefined;
        try {
            await stream<Piece>('/api/look-back', { file: page.file, rule: rule.id, from }, (next) => (piece = next), abort.signal);
        } catch (thrown) {
            if (!abort.signal.aborted) toasts.complain(said(thrown));
        }
        if (running === abort) running = null;
    }

    function stop() {
        stopped = true;
        running?.abort();
        running = null;
    }

    async function open(fire: Fire, event: Event) {
        anchor = event.currentTarget as HTMLElement;
        try {
            const record = await ask(
                api.GET('/api/records/{type}/{id}/then', {
                    params: { path: { type: rule.on, id: fire.record }, query: { entry: fire.entry } },
                }),
            );
            then = { fire, record };
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    const people = (counts: Record<string, number> | undefined) => Object.entries(counts ?? {});
</script>

<div class="p-5 pl-6" data-look-back={piece?.final ? 'done' : running ? 'running' : 'waiting'}>
    <div class="flex flex-wrap items-center gap-2">
        <div class="segments" role="group" aria-label="How far back">
            {#each SPANS as span (span.days)}
                <button type="button" aria-pressed={days === span.days} onclick={() => (days = span.days)}>{span.label}</button>
            {/each}
        </div>
        {#if running}
            <button type="button" class="btn" onclick={stop}>Stop</button>
        {:else}
            <button type="button" class="btn go" disabled={page.reading.problems.length > 0} onclick={start}>Look back</button>
        {/if}
    </div>
    {#if !piece && !running}
        <div class="empty">
            <h2>{page.reading.problems.length ? 'The rule is not finished.' : 'What would it have done?'}</h2>
            <p>
                The rule as it is written now is replayed over what was recorded: how often it would have fired, for which records, and what
                would differ from the page in force. Nothing is touched.
            </p>
        </div>
    {/if}
    {#if piece}
        <div class="mt-3 h-1 overflow-hidden rounded bg-ruled" role="progressbar" aria-valuenow={piece.records} aria-valuemax={piece.of}>
            <div class="h-full bg-iris" style="width: {(100 * piece.records) / Math.max(1, piece.of)}%"></div>
        </div>
        <p class="mini mt-1">
            {#if stopped}Stopped after{/if}
            {inFigures(piece.records)} of {inFigures(piece.of)}
            {piece.types.map((type) => within(session.type(type).plural)).join(', ')},
            {inFigures(piece.changes)} things that happened
        </p>
        <p class="mt-3 text-[15px]">
            <b class="font-semibold">{counted(piece.fires, ['It would have fired once.', 'It would have fired # times.'])}</b>
            {#if piece.heldBack}<span class="text-ink-2">
                    {counted(piece.heldBack, ['The repeat guard held it back once.', 'The repeat guard held it back # times.'])}</span
                >{/if}
        </p>
        {#if piece.hasPage}
            <p class="text-[13px] text-ink-2">
                {#if differs}
                    The page in force: {piece.otherFires}. <span class="font-semibold text-fern">{piece.appear} appear</span>,
                    <span class="font-semibold text-madder">{piece.vanish} vanish</span>.
                {:else}The same as the page in force.{/if}
            </p>
        {/if}
        {#if weeks.length}
            <div class="mt-3 flex h-24 items-end gap-px border-b border-ink-3" role="img" aria-label="Firings by week, {most} at most">
                {#each weeks as week (week)}
                    {@const own = piece.weeks[week] ?? 0}
                    {@const other = piece.otherWeeks[week] ?? 0}
                    <div
                        class="flex h-full min-w-0 flex-1 items-end justify-center gap-px"
                        title="Week of {day(week)}: {own}{piece.hasPage ? `, page in force ${other}` : ''}"
                    >
                        <span class="block max-w-3 flex-1 rounded-t-sm bg-iris" style="height: {(100 * own) / most}%"></span>
                        {#if piece.hasPage && differs}<span
                                class="block max-w-3 flex-1 rounded-t-sm bg-edge"
                                style="height: {(100 * other) / most}%"
                            ></span>{/if}
                    </div>
                {/each}
            </div>
            <div class="figures mini mt-1 flex justify-between">
                <span>{day(weeks[0] ?? '')}</span><span>{most} a week at most</span><span>{day(weeks[weeks.length - 1] ?? '')}</span>
            </div>
        {/if}
        {#if piece.final}
            {#if people(piece.tasks).length || people(piece.messages).length}
                <div class="mt-4 grid grid-cols-2 gap-4 text-[12.5px]">
                    {#each [['Tasks', piece.tasks], ['Messages', piece.messages]] as const as [label, counts] (label)}
                        <div>
                            <h2 class="mb-1 text-[13px]!">{label}</h2>
                            {#each people(counts).slice(0, 6) as [name, count] (name)}
                                <div class="flex justify-between border-b border-ruled py-0.5">
                                    <span class="truncate">{name}</span><span class="figures">{count}</span>
                                </div>
                            {:else}<p class="mini">none</p>{/each}
                        </div>
                    {/each}
                </div>
                <p class="mini mt-1">
                    {piece.played === piece.fires
                        ? 'Counted on all of them, played to their ends.'
                        : `Counted on the latest ${piece.played} of them, played to their ends.`}
                </p>
            {/if}
            {#if people(piece.clashes).length}
                <div class="callout warn mt-4">
                    On the same changes, the same fields were set by {people(piece.clashes)
                        .map(([name, count]) => `‘${name}’ (${count})`)
                        .join(', ')}.
                </div>
            {/if}
            {#if differs && piece.hasPage}
                <div class="segments mt-4">
                    {#each [['all', 'All'], ['appears', 'Appear'], ['vanishes', 'Vanish']] as const as [key, label] (key)}
                        <button type="button" aria-pressed={show === key} onclick={() => (show = key)}>{label}</button>
                    {/each}
                </div>
            {/if}
            <div class="mt-3">
                {#each listed.slice(0, 100) as fire (`${fire.record} ${fire.entry} ${fire.at} ${fire.how}`)}
                    <button
                        type="button"
                        class="paper w-full text-left hover:bg-lit"
                        data-fire={fire.record}
                        onclick={(event) => open(fire, event)}
                    >
                        <span class="m">{moment(fire.at)}</span>
                        <span
                            ><b class="font-semibold">{session.type(rule.on).prefix}-{String(fire.record).padStart(4, '0')}</b>
                            {fire.title ?? 'deleted since'}
                            {#if fire.how === 'appears' && piece.hasPage}<span class="text-fern">appears</span
                                >{:else if fire.how === 'vanishes'}<span class="text-madder">vanishes</span>{/if}</span
                        >
                    </button>
                {/each}
                {#if listed.length > 100}<p class="mini pt-2">The latest 100 of {piece.fires}.</p>{/if}
            </div>
        {/if}
    {/if}
</div>

{#if then && anchor}
    <Floating {anchor} label="The record at that moment" onclose={() => (then = null)}>
        <div class="w-[340px]">
            <div class="border-b border-ruled px-4 py-2.5 text-[12.5px]">
                <b class="font-semibold">{then.record.number} {then.record.title}</b><br />
                <span class="mini">as it stood on {moment(then.fire.at)}</span>
            </div>
            <dl class="max-h-[300px] overflow-auto px-4 py-2 text-[12.5px]">
                {#each session
                    .type(rule.on)
                    .fields.filter((field) => !field.system && then?.record.shown[field.name]) as field (field.name)}
                    <div class="grid grid-cols-[110px_1fr] gap-2 py-0.5">
                        <dt class="text-ink-3">{field.label}</dt>
                        <dd class="min-w-0 break-words">{then.record.shown[field.name]}</dd>
                    </div>
                {/each}
            </dl>
            <div class="keys">
                <a class="link" href="/ledger/{then.fire.entry}">Entry {then.fire.entry}</a>
                <a class="link ml-auto" href="/records/{rule.on}/{then.record.id}">Open the record</a>
            </div>
        </div>
    </Floating>
{/if}
