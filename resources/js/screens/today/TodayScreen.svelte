<script lang="ts">
    import Broken from '../../parts/Broken.svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import Bars from '../../parts/Bars.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { counted, daysUntil, localDay, moment, timeOfDay } from '../../state/moments';
    import { clock, session } from '../../state/session.svelte';
    import FirstSteps from './FirstSteps.svelte';
    import DueChart from './DueChart.svelte';
    import SignOffsWait from './SignOffsWait.svelte';
    import SlipsWait from './SlipsWait.svelte';
    import PencilledLine from '../../parts/PencilledLine.svelte';

    crumbs.set({ label: 'Today' });
    const today = createQuery(() => ({ queryKey: ['today'], queryFn: () => ask(api.GET('/api/today')), refetchInterval: 60_000 }));
    let chosen = $state<string | null>(null);
    const lines = createQuery(() => ({
        queryKey: ['lines', chosen],
        enabled: chosen !== null,
        queryFn: () => ask(api.GET('/api/lines', { params: { query: { date: chosen ?? '' } } })),
    }));
    const notes = createQuery(() => ({ queryKey: ['notes'], queryFn: () => ask(api.GET('/api/notes')), refetchInterval: 60_000 }));
    const slips = createQuery(() => ({
        queryKey: ['slips', 'mine'],
        queryFn: () => ask(api.GET('/api/slips', { params: { query: { box: 'mine', limit: 5 } } })),
        refetchInterval: 60_000,
    }));
    const heading = $derived(
        new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: clock.zone }).format(clock.now),
    );
    const everyones = $derived(session.me?.mayDoAllTasks ?? false);
    const wanting = $derived((today.data?.late ?? 0) + (today.data?.dueToday ?? 0));
    const dayName = (date: string) =>
        new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' }).format(
            new Date(`${date}T00:00:00Z`),
        );
    const margin = (due: string | null) => {
        if (!due) return { text: 'any time', late: false };
        const days = daysUntil(localDay(due));
        const late = Date.parse(due) < clock.now.getTime();
        return { text: days < 0 ? `${-days} d late` : days === 0 ? timeOfDay(due) : moment(due), late };
    };
</script>

<div class="spread grid-cols-[minmax(0,1fr)_minmax(320px,400px)]">
    <section class="leaf left" style="--margin-at: 118px">
        <header class="border-0!">
            <h1>{heading}</h1>
            <p class="sub">
                {#if today.data}
                    {#if wanting}
                        {counted(wanting, 'thing')}
                        {wanting === 1 ? 'wants' : 'want'}
                        {everyones ? 'a person' : 'you'} today{today.data.late ? `, ${today.data.late} late` : ''}.
                    {:else}
                        Nothing {everyones ? '' : 'of yours '}is due today, {session.me?.name.split(' ')[0]}.
                    {/if}
                {:else}{today.isError ? said(today.error) : 'Reading…'}{/if}
            </p>
        </header>
        {#if today.data}
            <div class="px-7 pb-4"><DueChart days={today.data.days} {chosen} onchoose={(date) => (chosen = date)} /></div>
            <div class="scroll border-t border-ruled">
                {#if chosen}
                    <div class="margined">
                        <div class="line min-h-0! bg-[#faf6ec]">
                            <div class="m h"></div>
                            <div class="b flex py-1.5! text-[12px]! font-semibold">
                                Pencilled in for {dayName(chosen)} <span class="figures ml-1 text-ink-3">{lines.data?.length ?? ''}</span>
                                <button type="button" class="link ml-auto" onclick={() => (chosen = null)}>Back to today</button>
                            </div>
                        </div>
                        {#each lines.data ?? [] as line (line.id)}
                            <svelte:boundary>
                                <PencilledLine {line} withRecord />
                                {#snippet failed()}<Broken what="line" />{/snippet}
                            </svelte:boundary>
                        {:else}{#if lines.data}<div class="empty"><h2>Nothing is pencilled in.</h2></div>{/if}
                        {/each}
                    </div>
                {:else}<div class="margined">
                        {#each today.data.tasks as task (task.id)}
                            <svelte:boundary>
                                {@const when = margin(task.dueAt)}
                                <div class="line">
                                    <div class="m {when.late ? 'text-madder!' : ''}">{when.text}</div>
                                    <div class="b flex items-baseline gap-3">
                                        <div class="min-w-0 flex-1">
                                            <span class="font-semibold">{task.title}</span>
                                            <span class="text-[12.5px] text-ink-3"
                                                >{everyones && task.assignee ? `${task.assignee}, ` : ''}{task.recordTitle}</span
                                            >
                                        </div>
                                        <a class="link shrink-0 text-[12.5px]" href="/records/{task.recordType}/{task.recordId}">Open</a>
                                    </div>
                                </div>
                                {#snippet failed()}<Broken what="task" />{/snippet}
                            </svelte:boundary>
                        {:else}
                            <div class="empty pl-[118px]!">
                                <h2>There are no open tasks.</h2>
                                <p>A rule gives one when a record needs a person.</p>
                            </div>
                        {/each}
                        {#if today.data.tasks.length === 12}<div class="line">
                                <div class="m"></div>
                                <div class="b"><a class="link text-[13px]" href="/tasks">All tasks</a></div>
                            </div>{/if}
                    </div>{/if}
            </div>
        {/if}
    </section>
    <section class="leaf right">
        <div class="scroll p-6">
            {#if session.me?.mayEditRules && today.data?.rules.length === 0}<FirstSteps />{/if}
            {#if notes.data?.length}
                <h2 class="mb-1">For you</h2>
                {#each notes.data.slice(0, 4) as note (note.id)}
                    <a
                        class="grid grid-cols-[92px_1fr] gap-2 border-b border-ruled py-1.5 text-[12.5px] hover:text-iris"
                        href="/records/{note.recordType}/{note.recordId}"
                    >
                        <span class="figures mini">{moment(note.createdAt)}</span><span
                            ><b class="font-semibold">{note.subject}</b> <span class="text-ink-3">{note.recordTitle}</span></span
                        >
                    </a>
                {/each}
            {/if}
            {#if slips.data?.slips.length}<div class={notes.data?.length ? 'mt-6' : ''}><SlipsWait slips={slips.data.slips} /></div>{/if}
            {#if today.data && (today.data.signOffs.mine || today.data.signOffs.waiting)}
                <div class={notes.data?.length ? 'mt-6' : ''}><SignOffsWait load={today.data.signOffs} /></div>
            {/if}
            <h2 class="mb-2 {notes.data?.length || today.data?.signOffs.waiting ? 'mt-6' : ''}">Rules at work, 14 days</h2>
            {#each today.data?.rules ?? [] as rule (rule.id)}
                <a class="flex items-center gap-3 border-b border-ruled py-2 hover:text-iris" href="/rules/{rule.id}">
                    <div class="min-w-0 flex-1">
                        <div class="truncate text-[13px] font-semibold">{rule.name}</div>
                        <div class="mini">{session.type(rule.on).plural}</div>
                    </div>
                    <div class="w-28 shrink-0"><Bars values={rule.days} label="Firings on each of the last 14 days" /></div>
                    <span class="figures w-9 shrink-0 text-right text-[12px]">{rule.days.reduce((sum, count) => sum + count, 0)}</span>
                </a>
            {:else}
                {#if today.data}<p class="text-[13px] text-ink-2">No rule is in force. <a class="link" href="/rules">Write one</a></p>{/if}
            {/each}
            <h2 class="mt-6 mb-1">Last in ink</h2>
            {#each today.data?.entries ?? [] as entry (entry.number)}
                {@const head = entry.headInLedger}
                <a
                    class="grid grid-cols-[92px_1fr] gap-2 border-b border-ruled py-1.5 text-[12.5px] hover:text-iris"
                    href="/ledger/{entry.number}"
                >
                    <span class="figures mini">{moment(entry.at)}</span><span><b class="font-semibold">{head.strong}</b> {head.rest}</span>
                </a>
            {/each}
        </div>
    </section>
</div>
