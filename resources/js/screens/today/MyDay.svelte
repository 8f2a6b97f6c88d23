<script lang="ts">
    import { Checkbox } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Shapes } from '../../api/client';
    import Broken from '../../parts/Broken.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import PencilledLine from '../../parts/PencilledLine.svelte';
    import { daysUntil, dayName, localDay, moment, timeOfDay } from '../../state/moments';
    import { clock, session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import DueChart from './DueChart.svelte';

    /* A person's own day: what is to be done, and what is pencilled in on the records they see. */
    type Task = Shapes['TaskShape'];
    let { today }: { today: Shapes['TodayShape'] } = $props();
    const client = useQueryClient();
    let chosen = $state<string | null>(null);
    const lines = createQuery(() => ({
        queryKey: ['lines', chosen],
        enabled: chosen !== null,
        queryFn: () => ask(api.GET('/api/lines', { params: { query: { date: chosen ?? '' } } })),
    }));
    const isLate = (task: Task) => task.dueAt !== null && Date.parse(task.dueAt) < clock.now.getTime();
    const isToday = (task: Task) => task.dueAt !== null && !isLate(task) && daysUntil(localDay(task.dueAt)) <= 0;
    const groups = $derived(
        [
            { label: 'Late', tone: 'madder', tasks: today.tasks.filter(isLate) },
            { label: 'Today', tone: 'marigold', tasks: today.tasks.filter(isToday) },
            { label: 'Coming up', tone: 'harbor', tasks: today.tasks.filter((task) => !isLate(task) && !isToday(task)) },
        ].filter((group) => group.tasks.length),
    );
    const margin = (task: Task) => {
        if (!task.dueAt) return 'any time';
        const days = daysUntil(localDay(task.dueAt));
        return days < 0 ? `${-days} d late` : days === 0 ? timeOfDay(task.dueAt) : moment(task.dueAt);
    };

    async function settle(task: Task, done: boolean) {
        const params = { path: { id: task.id } };
        try {
            await ask(done ? api.POST('/api/tasks/{id}/complete', { params, body: {} }) : api.POST('/api/tasks/{id}/reopen', { params }));
            if (done) toasts.tell(`“${task.title}” is done.`, { label: 'Undo', run: () => void settle(task, false) });
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        for (const key of ['today', 'tasks', 'account', 'ledger', 'lines']) void client.invalidateQueries({ queryKey: [key] });
    }
</script>

<div class="px-7 pb-4"><DueChart days={today.days} {chosen} onchoose={(date) => (chosen = date)} /></div>
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
    {:else}
        {#each groups as group (group.label)}
            <div class="margined min-h-0!" role="group" aria-label={group.label}>
                <div class="line min-h-0! bg-[#faf6ec]">
                    <div class="m h"></div>
                    <div class="b py-1.5! text-[12px]! font-semibold tone-{group.tone}">
                        {group.label} <span class="figures text-ink-3">{group.tasks.length}</span>
                    </div>
                </div>
                {#each group.tasks as task (task.id)}
                    <svelte:boundary>
                        <div class="line">
                            <div class="m {isLate(task) ? 'text-madder!' : ''}">{margin(task)}</div>
                            <div class="b flex items-start gap-3">
                                <Checkbox
                                    class="mt-1 h-4 w-4"
                                    aria-label="Done: {task.title}"
                                    checked={false}
                                    disabled={!session.me?.mayEditRecords}
                                    onchange={() => settle(task, true)}
                                />
                                <div class="min-w-0 flex-1">
                                    <span class="font-semibold">{task.title}</span>
                                    {#if task.priority === 'high'}<Stamp tone="madder">high</Stamp>{/if}
                                    <div class="text-[12.5px] text-ink-3">
                                        <a class="hover:text-iris" href="/records/{task.recordType}/{task.recordId}"
                                            ><span class="figures">{task.recordNumber}</span> {task.recordTitle}</a
                                        >
                                    </div>
                                </div>
                            </div>
                        </div>
                        {#snippet failed()}<Broken what="task" />{/snippet}
                    </svelte:boundary>
                {/each}
            </div>
        {:else}
            <div class="empty">
                <h2>Nothing is to be done.</h2>
                <p>A rule gives you a task when a record needs you. <a class="link" href="/tasks">Give yourself one</a></p>
            </div>
        {/each}
        {#if today.tasks.length}<div class="margined min-h-0!">
                <div class="line">
                    <div class="m"></div>
                    <div class="b"><a class="link text-[13px]" href="/tasks">All tasks</a></div>
                </div>
            </div>{/if}
    {/if}
</div>
