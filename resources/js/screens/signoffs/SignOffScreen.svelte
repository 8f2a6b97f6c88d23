<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Shapes } from '../../api/client';
    import Broken from '../../parts/Broken.svelte';
    import Confirm from '../../parts/Confirm.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { ahead, counted, moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { toneOf, wordOf } from './status';
    import StandsLeaf from './StandsLeaf.svelte';

    /* What waits for a yes or a no: a list of cases, and the one that is read and decided. */
    crumbs.set({ label: 'Sign-offs' });
    type SignOff = Shapes['SignOffShape'];
    type Box = 'waiting' | 'asked' | 'decided' | 'all';
    const client = useQueryClient();
    const boxes = $derived<[Box, string][]>([
        ['waiting', 'Wait for me'],
        ['asked', 'I asked'],
        ['decided', 'I decided'],
        ...(session.me?.mayEditRules ? [['all', 'Everything'] as [Box, string]] : []),
    ]);
    const empty: Record<Box, [string, string]> = {
        waiting: ['Nothing waits for you.', 'When a rule asks for your sign-off, it stands here.'],
        asked: ['You have asked for none.', 'What your changes ask for is kept here, with where it stands.'],
        decided: ['You have decided none yet.', 'What you said yes or no to is kept here.'],
        all: ['There are no sign-offs yet.', 'A rule asks for one with the line “Ask for a sign-off”.'],
    };
    let box = $state<Box>('waiting');
    let chosen = $state(0);
    let picked = $state<number[]>([]);
    let comment = $state('');
    type Act = 'yes' | 'no' | 'withdraw';
    /** What is being said, and of which cases: the list may change under it, the cases do not. */
    let asking = $state<{ act: Act; cases: SignOff[] } | null>(null);
    let deciding = $state(false);
    const page = createQuery(() => ({
        queryKey: ['sign-offs', box],
        queryFn: () => ask(api.GET('/api/sign-offs', { params: { query: { box, limit: 200 } } })),
        refetchInterval: 30_000,
    }));
    const list = $derived(page.data?.signOffs ?? []);
    const open = $derived(list.find((one) => one.id === chosen) ?? list[0]);

    function begin(act: Act, cases: SignOff[]) {
        comment = '';
        if (cases.length) asking = { act, cases };
    }
    const ticked = $derived(list.filter((one) => picked.includes(one.id)));

    function turnTo(next: Box) {
        box = next;
        chosen = 0;
        picked = [];
    }

    function refresh() {
        for (const key of ['sign-offs', 'account', 'ledger', 'today', 'lines', 'record'])
            void client.invalidateQueries({ queryKey: [key] });
    }

    async function decide(answer: 'yes' | 'no', cases: SignOff[]) {
        if (deciding || (answer === 'no' && !comment.trim())) return;
        deciding = true;
        try {
            const answered = await ask(api.POST('/api/sign-offs/answers', { body: { ids: cases.map((one) => one.id), answer, comment } }));
            const left = answered.filter((one) => one.problem !== null);
            const taken = answered.length - left.length;
            if (taken) toasts.tell(`${counted(taken, 'sign-off')} ${answer === 'yes' ? 'agreed to' : 'declined'}.`);
            if (left[0]) toasts.complain(left.length === 1 ? `${left[0].problem}` : `${left.length} were not taken: ${left[0].problem}`);
            picked = [];
            asking = null;
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        deciding = false;
        refresh();
    }

    async function withdraw(one: SignOff) {
        try {
            await ask(api.POST('/api/sign-offs/{id}/withdraw', { params: { path: { id: one.id } } }));
            toasts.tell('It is withdrawn. Nobody is asked any more.');
            asking = null;
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        refresh();
    }

    function key(event: KeyboardEvent) {
        // A box that is ticked is no place to type in; the search of all screens is.
        const isTyping = (event.target as HTMLElement).matches('input:not([type=checkbox]), textarea, select');
        if (asking || isTyping || event.ctrlKey || event.metaKey || event.altKey) return;
        const index = list.findIndex((one) => one.id === open?.id);
        const next = event.key === 'ArrowDown' ? list[index + 1] : event.key === 'ArrowUp' ? list[index - 1] : undefined;
        if (next) chosen = next.id;
        else if (event.key.toLowerCase() === 'y' && open?.mine) begin('yes', ticked.length ? ticked : [open]);
        else if (event.key.toLowerCase() === 'n' && open?.mine) begin('no', ticked.length ? ticked : [open]);
        else return;
        event.preventDefault();
    }
    const mySeat = (one: SignOff) => one.seats.find((seat) => seat.state === 'waiting' && seat.personId === session.me?.id);
    const margin = (one: SignOff) => {
        const due = mySeat(one)?.dueAt;
        return one.endedAt ? moment(one.endedAt) : due ? ahead(due) : moment(one.startedAt);
    };
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
            <div class="flex items-start gap-3">
                <div>
                    <h1>Sign-offs</h1>
                    <p class="sub">{page.data ? counted(page.data.total, 'sign-off') : 'Reading…'}</p>
                </div>
                <div class="segments ml-auto" role="group" aria-label="Which">
                    {#each boxes as [name, label] (name)}
                        <button type="button" aria-pressed={box === name} onclick={() => turnTo(name)}>{label}</button>
                    {/each}
                </div>
            </div>
        </header>
        {#if ticked.length}
            <div class="flex items-center gap-2 border-b border-ruled bg-iris-wash px-7 py-2 text-[13px]">
                <b>{counted(ticked.length, 'sign-off')} chosen</b>
                <button type="button" class="btn go ml-auto" onclick={() => begin('yes', ticked)}>Agree…</button>
                <button type="button" class="btn" onclick={() => begin('no', ticked)}>Decline…</button>
                <button type="button" class="btn quiet" onclick={() => (picked = [])}>None</button>
            </div>
        {/if}
        <div class="scroll" style="--margin-at: 116px">
            {#if page.isError}
                <div class="empty">
                    <h2>The sign-offs cannot be shown.</h2>
                    <p>{said(page.error)}</p>
                </div>
            {:else if page.data && list.length === 0}
                <div class="empty">
                    <h2>{empty[box][0]}</h2>
                    <p>{empty[box][1]}</p>
                </div>
            {/if}
            <div class="margined min-h-0!">
                {#each list as one (one.id)}
                    <svelte:boundary>
                        <div class="line {one.id === open?.id ? 'bg-iris-wash' : ''}" data-sign-off={one.id}>
                            <div class="m">{margin(one)}</div>
                            <div class="b flex items-start gap-3">
                                <button
                                    type="button"
                                    class="min-w-0 flex-1 text-left"
                                    aria-current={one.id === open?.id ? 'true' : undefined}
                                    onclick={() => (chosen = one.id)}
                                >
                                    <span class="block font-semibold">{one.recordTitle}</span>
                                    {#if one.why}<span class="block text-[13px] text-ink-2">{one.why}</span>{/if}
                                    <span class="block text-[12.5px] text-ink-3">
                                        <span class="figures">{one.recordNumber}</span>
                                        {one.asker && box !== 'asked' ? `· asked by ${one.asker}` : ''} · {one.ruleName}
                                        {#if box !== 'waiting' && whoIsNext(one)}· waits for {whoIsNext(one)}{/if}
                                    </span>
                                </button>
                                {#if box !== 'waiting'}<Stamp tone={toneOf(one.status)}>{wordOf(one.status)}</Stamp>{/if}
                                {#if box === 'waiting'}<input
                                        type="checkbox"
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
        </div>
        <div class="keys shrink-0">
            <span><kbd>↑ ↓</kbd>move</span><span><kbd>Y</kbd>agree</span><span><kbd>N</kbd>decline</span>
        </div>
    </section>
    <section class="leaf right">
        {#if open}
            <header class="flex items-start gap-3">
                <div class="min-w-0 flex-1">
                    <h2 class="title text-[21px]!">
                        <a class="hover:text-iris" href="/records/{open.recordType}/{open.recordId}">{open.recordTitle}</a>
                    </h2>
                    <p class="sub">
                        {session.type(open.recordType).label} <span class="figures">{open.recordNumber}</span> ·
                        <a class="hover:text-iris" href="/ledger/{open.entry}">{open.ruleName}</a>
                    </p>
                    {#if open.why}<p class="mt-2">{open.why}</p>{/if}
                </div>
                {#if open.mine}
                    <button type="button" class="btn go" onclick={() => begin('yes', [open])}>Agree…</button>
                    <button type="button" class="btn" onclick={() => begin('no', [open])}>Decline…</button>
                {:else if open.mayWithdraw}
                    <button type="button" class="btn" onclick={() => begin('withdraw', [open])}>Withdraw…</button>
                {/if}
            </header>
            <div class="scroll" style="--margin-at: 116px">
                {#key open.id}<StandsLeaf signOff={open} />{/key}
            </div>
        {:else}
            <div class="empty"></div>
        {/if}
    </section>
</div>

{#if asking?.act === 'yes' || asking?.act === 'no'}
    {@const { act: answer, cases } = asking}
    <Confirm
        title="{answer === 'yes' ? 'Agree to' : 'Decline'} {cases.length === 1 ? 'this' : counted(cases.length, 'sign-off')}?"
        go={answer === 'yes' ? 'Agree' : 'Decline'}
        danger={answer === 'no'}
        busy={deciding || (answer === 'no' && !comment.trim())}
        onconfirm={() => decide(answer as 'yes' | 'no', cases)}
        onclose={() => (asking = null)}
    >
        <ul>
            {#each cases.slice(0, 5) as one (one.id)}<li><b class="text-ink">{one.recordTitle}</b> {one.why}</li>{/each}
            {#if cases.length > 5}<li>and {cases.length - 5} more</li>{/if}
        </ul>
        <!-- svelte-ignore a11y_autofocus -->
        <textarea
            class="input"
            rows="3"
            aria-label={answer === 'no' ? 'Why not' : 'Comment'}
            placeholder={answer === 'no' ? 'Why not: whoever asked wants to know' : 'A comment, if you like'}
            maxlength="2000"
            autofocus={answer === 'no'}
            onkeydown={(event) => {
                if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void decide(answer as 'yes' | 'no', cases);
            }}
            bind:value={comment}></textarea>
        <p class="mini"><kbd>Ctrl</kbd> <kbd>Enter</kbd> says it.</p>
    </Confirm>
{:else if asking?.act === 'withdraw' && asking.cases[0]}
    {@const one = asking.cases[0]}
    <Confirm title="Withdraw this sign-off?" go="Withdraw" danger onconfirm={() => withdraw(one)} onclose={() => (asking = null)}>
        <p><b class="text-ink">{one.recordTitle}</b></p>
        <p class="mini">Nobody is asked any more, and the lines that wait for a withdrawal are done.</p>
    </Confirm>
{/if}
