<script lang="ts">
    import { Checkbox, Select } from 'flowbite-svelte';
    import { createInfiniteQuery, keepPreviousData } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Broken from '../../parts/Broken.svelte';
    import SearchField from '../../parts/fields/SearchField.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { ahead, moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import ActDialog from './ActDialog.svelte';
    import type { Act } from './acts';
    import CaseLeaf from './CaseLeaf.svelte';
    import { toneOf, wordOf } from './status';
    import { counted } from '../../state/words';

    /* What waits for a yes or a no: a list of cases, and the one that is read and decided. */
    crumbs.set({ label: 'Sign-offs' });
    type SignOff = Resources['SignOffResource'];
    type Box = 'waiting' | 'asked' | 'decided' | 'all';
    const boxes = $derived<[Box, string][]>([
        ['waiting', 'Wait for me'],
        ['asked', 'I asked'],
        ['decided', 'I decided'],
        ...(session.me?.mayEditRules ? [['all', 'Everything'] as [Box, string]] : []),
    ]);
    const statuses: SignOff['status'][] = ['waiting', 'agreed', 'declined', 'timed_out', 'withdrawn', 'stopped'];
    const empty: Record<Box, [string, string]> = {
        waiting: ['Nothing waits for you.', 'When a rule asks for your sign-off, it stands here.'],
        asked: ['You have asked for none.', 'What your changes ask for is kept here, with where it stands.'],
        decided: ['You have decided none yet.', 'What you said yes or no to is kept here.'],
        all: ['There are no sign-offs yet.', 'A rule asks for one with the line “Ask for a sign-off”.'],
    };
    let box = $state<Box>('waiting');
    let chosen = $state(0);
    let picked = $state<number[]>([]);
    /** What is being done, and with which cases: the list may change under it, the cases do not. */
    let asking = $state<{ act: Act; cases: SignOff[]; place?: number } | null>(null);
    const NOTHING = { search: '', status: '', type: '', person: '' };
    let wanted = $state({ ...NOTHING });
    const isNarrowed = $derived(Object.values(wanted).some((value) => value !== ''));
    const asked = $derived({
        box,
        search: wanted.search || undefined,
        status: (wanted.status || undefined) as SignOff['status'] | undefined,
        type: wanted.type || undefined,
        person: wanted.person ? Number(wanted.person) : undefined,
    });
    const pages = createInfiniteQuery(() => ({
        queryKey: ['sign-offs', asked],
        placeholderData: keepPreviousData,
        initialPageParam: undefined as number | undefined,
        queryFn: ({ pageParam }) => ask(api.GET('/api/sign-offs', { params: { query: { ...asked, after: pageParam } } })),
        getNextPageParam: (page: Resources['SignOffPage']) => page.next ?? undefined,
        refetchInterval: 30_000,
    }));
    const list = $derived((pages.data?.pages ?? []).flatMap((page) => page.signOffs));
    const total = $derived(pages.data?.pages[0]?.total);
    const file = $derived(`/api/sign-offs/file?${new URLSearchParams(JSON.parse(JSON.stringify(asked)))}`);
    /** What waits is put together by the rule that asks, those of one kind one after the other. */
    const groups = $derived.by(() => {
        const byRule: { name: string; signOffs: SignOff[] }[] = [];
        for (const one of list) {
            const group = byRule.find((other) => other.name === one.ruleName);
            if (group && box === 'waiting') group.signOffs.push(one);
            else byRule.push({ name: one.ruleName, signOffs: [one] });
        }
        return box === 'waiting' ? byRule : [{ name: '', signOffs: list }];
    });
    const inOrder = $derived(groups.flatMap((group) => group.signOffs));
    const open = $derived(inOrder.find((one) => one.id === chosen) ?? inOrder[0]);
    const ticked = $derived(inOrder.filter((one) => picked.includes(one.id)));

    function begin(act: Act, cases: SignOff[], place?: number) {
        if (cases.length) asking = { act, cases, place };
    }

    function turnTo(next: Box) {
        box = next;
        wanted = { ...NOTHING };
        chosen = 0;
        picked = [];
    }

    function tick(signOffs: SignOff[]) {
        const ids = signOffs.map((one) => one.id);
        const all = ids.every((id) => picked.includes(id));
        picked = all ? picked.filter((id) => !ids.includes(id)) : [...new Set([...picked, ...ids])];
    }

    function key(event: KeyboardEvent) {
        // A box that is ticked is no place to type in; the search of all screens is.
        const isTyping = (event.target as HTMLElement).matches('input:not([type=checkbox]), textarea, select');
        if (asking || isTyping || event.ctrlKey || event.metaKey || event.altKey) return;
        const index = inOrder.findIndex((one) => one.id === open?.id);
        const next = event.key === 'ArrowDown' ? inOrder[index + 1] : event.key === 'ArrowUp' ? inOrder[index - 1] : undefined;
        const letter = event.key.toLowerCase();
        const ofSeveral: Partial<Record<string, Act>> = { y: 'yes', n: 'no' };
        const ofOne: Partial<Record<string, Act>> = { q: 'ask', h: 'hand' };
        if (next) chosen = next.id;
        else if (ofSeveral[letter] && open?.mine) begin(ofSeveral[letter], ticked.length ? ticked : [open]);
        else if (ofOne[letter] && open?.mine) begin(ofOne[letter], [open]);
        else if (letter === 'x' && open?.mine) tick([open]);
        else return;
        event.preventDefault();
    }
    const mySeat = (one: SignOff) => one.seats.find((seat) => seat.state === 'waiting' && seat.personId === session.me?.id);
    const margin = (one: SignOff) => {
        const due = mySeat(one)?.dueAt;
        return one.endedAt ? moment(one.endedAt) : due ? ahead(due) : moment(one.startedAt);
    };
    const asksMe = (one: SignOff) => one.mayAnswerBack && one.seats.some((seat) => seat.asksBack);
    const whoIsNext = (one: SignOff) =>
        one.seats
            .filter((seat) => seat.state === 'waiting')
            .map((seat) => seat.person)
            .join(', ');
</script>

<svelte:window onkeydown={key} />

<div class="spread grid-cols-[minmax(0,1fr)_minmax(0,520px)]">
    <section class="leaf left">
        <header>
            <div class="flex flex-wrap items-start gap-x-3 gap-y-2">
                <div>
                    <h1>Sign-offs</h1>
                    <p class="sub">
                        {total === undefined ? 'Reading…' : counted(total, ['# sign-off', '# sign-offs'])}
                        {#if total}<a class="link" href={file} download>Export</a>{/if}
                    </p>
                </div>
                <div class="segments ml-auto" role="group" aria-label="Which">
                    {#each boxes as [name, label] (name)}
                        <button type="button" aria-pressed={box === name} onclick={() => turnTo(name)}>{label}</button>
                    {/each}
                </div>
            </div>
        </header>
        {#if total || isNarrowed}
            <div class="sign-off-filter" role="group" aria-label="Which sign-offs">
                <div class="col-span-full">
                    <SearchField label="Search by record or rule" value={wanted.search} onsearch={(text) => (wanted.search = text)} />
                </div>
                <Select placeholder="" aria-label="Record type" bind:value={wanted.type}>
                    <option value="">any record type</option>
                    {#each session.schema?.types ?? [] as one (one.name)}<option value={one.name}>{one.plural}</option>{/each}
                </Select>
                {#if box !== 'waiting'}
                    <Select placeholder="" aria-label="How it stands" bind:value={wanted.status}>
                        <option value="">however it stands</option>
                        {#each statuses as status (status)}<option value={status}>{wordOf(status)}</option>{/each}
                    </Select>
                {/if}
                {#if box === 'all'}
                    <Select placeholder="" aria-label="Who was asked" bind:value={wanted.person}>
                        <option value="">anybody</option>
                        {#each session.people as person (person.id)}<option value={String(person.id)}>{person.name}</option>{/each}
                    </Select>
                {/if}
                {#if isNarrowed}<button type="button" class="link" onclick={() => (wanted = { ...NOTHING })}>all</button>{/if}
            </div>
        {/if}
        {#if ticked.length}
            <div class="flex items-center gap-2 border-b border-ruled bg-iris-wash px-7 py-2 text-[13px]">
                <b>{counted(ticked.length, ['# sign-off chosen', '# sign-offs chosen'])}</b>
                <button type="button" class="btn go ml-auto" onclick={() => begin('yes', ticked)}>Agree…</button>
                <button type="button" class="btn" onclick={() => begin('no', ticked)}>Decline…</button>
                <button type="button" class="btn quiet" onclick={() => (picked = [])}>None</button>
            </div>
        {/if}
        <div class="scroll" style="--margin-at: 116px">
            {#if pages.isError}
                <div class="empty">
                    <h2>The sign-offs cannot be shown.</h2>
                    <p>{said(pages.error)}</p>
                </div>
            {:else if pages.data && list.length === 0 && isNarrowed}
                <div class="empty">
                    <h2>None is like that.</h2>
                    <p>Search for other words, or show all of them.</p>
                </div>
            {:else if pages.data && list.length === 0}
                <div class="empty">
                    <h2>{empty[box][0]}</h2>
                    <p>{empty[box][1]}</p>
                </div>
            {/if}
            {#each groups as group, index (index)}
                {#if group.name && group.signOffs.length}
                    <div class="flex items-baseline gap-2 border-b border-ruled px-7 pt-3 pb-1.5 text-[12.5px]">
                        <b class="font-semibold">{group.name}</b> <span class="figures text-ink-3">{group.signOffs.length}</span>
                        {#if group.signOffs.length > 1}
                            <button type="button" class="link ml-auto" onclick={() => tick(group.signOffs)}>Choose all of these</button>
                        {/if}
                    </div>
                {/if}
                <div class="margined min-h-0!">
                    {#each group.signOffs as one (one.id)}
                        <svelte:boundary>
                            {@const seat = mySeat(one)}
                            <div class="line {one.id === open?.id ? 'bg-iris-wash' : ''}" data-sign-off={one.id}>
                                <div class="m">{margin(one)}</div>
                                <div class="b flex items-start gap-3">
                                    <button
                                        type="button"
                                        class="min-w-0 flex-1 text-left"
                                        aria-pressed={one.id === open?.id}
                                        onclick={() => (chosen = one.id)}
                                    >
                                        <span class="block font-semibold">{one.recordTitle}</span>
                                        {#if one.why}<span class="block text-[13px] text-ink-2">{one.why}</span>{/if}
                                        <span class="block text-[12.5px] text-ink-3">
                                            <span class="figures">{one.recordNumber}</span>
                                            {one.asker && box !== 'asked' ? `· asked by ${one.asker}` : ''}
                                            {box === 'waiting' ? '' : `· ${one.ruleName}`}
                                            {#if box !== 'waiting' && whoIsNext(one)}· waits for {whoIsNext(one)}{/if}
                                            {#if seat?.standsFor}· for {seat.standsFor}, who is absent{/if}
                                            {#if seat?.asksBack}· your question is open{/if}
                                        </span>
                                    </button>
                                    {#if box === 'asked' && asksMe(one)}<Stamp tone="iris">asks you</Stamp>{/if}
                                    {#if box !== 'waiting'}<Stamp tone={toneOf(one.status)}>{wordOf(one.status)}</Stamp>{/if}
                                    {#if box === 'waiting'}<Checkbox
                                            class="pick mt-1.5 h-3.5 w-3.5 shrink-0 accent-(--ink)"
                                            aria-label="Choose: {one.recordTitle}"
                                            value={one.id}
                                            bind:group={picked}
                                        />{/if}
                                </div>
                            </div>
                            {#snippet failed()}<Broken what="sign-off" />{/snippet}
                        </svelte:boundary>
                    {/each}
                </div>
            {/each}
            {#if pages.hasNextPage}
                <p class="mini flex items-center gap-3 px-7 py-3">
                    {list.length} of {total}
                    <button type="button" class="btn" disabled={pages.isFetchingNextPage} onclick={() => pages.fetchNextPage()}
                        >Show more</button
                    >
                </p>
            {/if}
        </div>
        <div class="keys shrink-0">
            <span><kbd>↑ ↓</kbd>move</span><span><kbd>Y</kbd>agree</span><span><kbd>N</kbd>decline</span><span><kbd>X</kbd>choose</span>
            <span><kbd>Q</kbd>ask first</span><span><kbd>H</kbd>hand over</span>
        </div>
    </section>
    <section class="leaf right">
        {#if open}
            {#key open.id}<CaseLeaf signOff={open} onact={(act, place) => begin(act, [open], place)} />{/key}
        {:else}
            <div class="empty"></div>
        {/if}
    </section>
</div>

{#if asking}
    {@const { act, cases, place } = asking}
    <ActDialog
        {act}
        {cases}
        {place}
        onclose={() => (asking = null)}
        ondone={() => {
            picked = [];
            asking = null;
        }}
    />
{/if}
