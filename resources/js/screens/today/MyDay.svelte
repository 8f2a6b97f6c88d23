<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, type Shapes } from '../../api/client';
    import Broken from '../../parts/Broken.svelte';
    import PencilledLine from '../../parts/PencilledLine.svelte';
    import { daysUntil, dayName, localDay } from '../../state/moments';
    import { clock, session } from '../../state/session.svelte';
    import GroupHeading from '../tasks/GroupHeading.svelte';
    import TaskRow from '../tasks/TaskRow.svelte';
    import { settle } from '../tasks/settle';
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
</script>

<div class="px-7 pb-4"><DueChart days={today.days} {chosen} onchoose={(date) => (chosen = date)} /></div>
<div class="scroll border-t border-ruled">
    {#if chosen}
        <div class="margined">
            <div class="line min-h-0! bg-lit">
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
                <GroupHeading label={group.label} tone={group.tone} count={group.tasks.length} />
                {#each group.tasks as task (task.id)}
                    <svelte:boundary>
                        <TaskRow
                            {task}
                            tone={group.tone}
                            isCurrent={false}
                            withPerson={false}
                            mayDo={session.me?.mayEditRecords ?? false}
                            onsettle={(done) => settle(client, task, done)}
                        />
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
