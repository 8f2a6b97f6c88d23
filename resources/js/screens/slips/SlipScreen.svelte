<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import Broken from '../../parts/Broken.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import { holder, toneOf } from './status';
    import SlipTurns from './SlipTurns.svelte';
    import { counted, say } from '../../state/words';

    /* Reply slips: those that wait for me, all that are out, and what came back. */
    crumbs.set({ label: 'Slips' });
    type Box = 'mine' | 'waiting' | 'all';
    const boxes: [Box, string][] = [
        ['mine', 'Wait for me'],
        ['waiting', 'Out'],
        ['all', 'Everything'],
    ];
    const empty: Record<Box, [string, string]> = {
        mine: ['No slip waits for you.', 'When a rule asks you something on a slip, it stands here.'],
        waiting: ['No slip is out.', 'A rule sends one with the line “Send a reply slip”.'],
        all: ['No slip was sent yet.', 'A rule sends one with the line “Send a reply slip”.'],
    };
    let box = $state<Box>('mine');
    let chosen = $state(0);
    const page = createQuery(() => ({
        queryKey: ['slips', box],
        queryFn: () => ask(api.GET('/api/slips', { params: { query: { box, limit: 100 } } })),
        refetchInterval: 30_000,
    }));
    // Whoever has none of their own wants to see those that are out.
    let looked = false;
    $effect(() => {
        if (looked || !page.data) return;
        if (page.data.count > 0 || box === 'all') looked = true;
        else box = box === 'mine' ? 'waiting' : 'all';
    });
    const list = $derived(page.data?.slips ?? []);
    const open = $derived(list.find((one) => one.id === chosen) ?? list[0]);

    function turnTo(next: Box) {
        box = next;
        chosen = 0;
    }

    function key(event: KeyboardEvent) {
        const isTyping = (event.target as HTMLElement).matches('input, textarea, select');
        if (isTyping || event.ctrlKey || event.metaKey || event.altKey) return;
        const index = list.findIndex((one) => one.id === open?.id);
        const next = event.key === 'ArrowDown' ? list[index + 1] : event.key === 'ArrowUp' ? list[index - 1] : undefined;
        if (!next) return;
        chosen = next.id;
        event.preventDefault();
    }
</script>

<svelte:window onkeydown={key} />

<div class="spread grid-cols-[minmax(0,1fr)_minmax(0,480px)]">
    <section class="leaf left">
        <header>
            <div class="flex items-start gap-3">
                <div>
                    <h1>Reply slips</h1>
                    <p class="sub">{page.data ? counted(page.data.count, ['# slip', '# slips']) : 'Reading…'}</p>
                </div>
                <div class="segments ml-auto" role="group" aria-label="Which">
                    {#each boxes as [name, label] (name)}
                        <button type="button" aria-pressed={box === name} onclick={() => turnTo(name)}>{label}</button>
                    {/each}
                </div>
            </div>
        </header>
        <div class="scroll" style="--margin-at: 116px">
            {#if page.isError}
                <div class="empty">
                    <h2>The slips cannot be shown.</h2>
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
                        <div class="line {one.id === open?.id ? 'bg-iris-wash' : ''}" data-slip={one.id}>
                            <div class="m">{moment(one.endedAt ?? one.sentAt)}</div>
                            <div class="b flex items-start gap-3">
                                <button
                                    type="button"
                                    class="min-w-0 flex-1 text-left"
                                    aria-current={one.id === open?.id ? 'true' : undefined}
                                    onclick={() => (chosen = one.id)}
                                >
                                    <span class="block truncate font-semibold">{one.subject}</span>
                                    <span class="block text-[12.5px] text-ink-3">
                                        <span class="figures">{one.recordNumber}</span>
                                        {one.recordTitle} · {holder(one)}
                                    </span>
                                </button>
                                <Stamp tone={toneOf(one)}>{one.status === 'run_out' ? say('unanswered') : one.statusSaid}</Stamp>
                            </div>
                        </div>
                        {#snippet failed()}<Broken what="slip" />{/snippet}
                    </svelte:boundary>
                {/each}
            </div>
            {#if page.data && page.data.count > list.length}
                <p class="mini px-7 py-3">The latest {list.length} of {page.data.count}.</p>
            {/if}
        </div>
        <div class="keys shrink-0"><span><kbd>↑ ↓</kbd>move</span></div>
    </section>
    <section class="leaf right">
        {#if open}
            <header>
                <h1 class="text-[20px]!">{open.subject}</h1>
                <p class="sub">
                    <a class="link" href="/records/{open.recordType}/{open.recordId}">{open.recordTitle || open.recordNumber}</a>
                    · by the rule “{open.rule}”
                </p>
            </header>
            <div class="scroll">
                {#key open.id}<SlipTurns slip={open} />{/key}
            </div>
        {:else}
            <div class="empty"></div>
        {/if}
    </section>
</div>
