<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import type { Resources } from '../../api/client';
    import Broken from '../../parts/Broken.svelte';
    import { daysUntil, localDay } from '../../state/moments';
    import { clock, session } from '../../state/session.svelte';
    import GroupHeading from '../tasks/GroupHeading.svelte';
    import TaskRow from '../tasks/TaskRow.svelte';
    import { settle } from '../tasks/settle';
    import DayLines from './DayLines.svelte';
    import DueChart from './DueChart.svelte';

    /* A person's own day: what is to be done, and what is pencilled in on the records they see. */
    type Task = Resources['TaskResource'];
    let { today }: { today: Resources['TodayResource'] } = $props();
    const client = useQueryClient();
    let chosen = $state<string | null>(null);
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

<div class="px-7 pb-4">
    <DueChart title="Pencilled in for you, the next two weeks" days={today.days} {chosen} onchoose={(date) => (chosen = date)} />
</div>
<div class="scroll border-t border-ruled">
    {#if chosen}
        <DayLines date={chosen} whose="mine" onback={() => (chosen = null)} />
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
