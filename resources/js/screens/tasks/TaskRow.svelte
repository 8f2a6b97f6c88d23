<script lang="ts">
    import { Checkbox } from 'flowbite-svelte';
    import type { Resources } from '../../api/client';
    import Stamp from '../../parts/Stamp.svelte';
    import { daysUntil, localDay, moment, timeOfDay } from '../../state/moments';
    import { say } from '../../state/words';

    /* One task with what there is to it; ticked, it is done. */
    type Task = Resources['TaskResource'];
    type Props = {
        task: Task;
        tone: string;
        isCurrent: boolean;
        withPerson: boolean;
        mayDo: boolean;
        /** Those that are chosen; left out, none can be. */
        picked?: number[];
        oncurrent?: () => void;
        onsettle: (done: boolean) => void;
        oncarry?: (carried: Task | null) => void;
    };
    let { task, tone, isCurrent, withPerson, mayDo, picked = $bindable(), oncurrent, onsettle, oncarry }: Props = $props();
    const isOpen = $derived(task.status === 'open');
    const margin = $derived.by(() => {
        if (!isOpen) return task.doneAt ? moment(task.doneAt) : '';
        if (!task.dueAt) return 'any time';
        const days = daysUntil(localDay(task.dueAt));
        if (days === 0) return timeOfDay(task.dueAt);
        return days < 0 && days > -100 ? `${-days} d late` : moment(task.dueAt);
    });
</script>

<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
<div
    class="line {isCurrent ? 'bg-picked' : ''}"
    data-task={task.id}
    draggable={isOpen && mayDo && oncarry !== undefined}
    ondragstart={(event) => {
        event.dataTransfer?.setData('text/plain', task.title);
        oncarry?.(task);
    }}
    ondragend={() => oncarry?.(null)}
    onclick={oncurrent}
    onfocusin={oncurrent}
>
    <div class="m {tone === 'madder' ? 'text-madder!' : ''}">{margin}</div>
    <div class="b flex items-start gap-3">
        <Checkbox
            class="mt-1 h-4 w-4 rounded-full"
            aria-label="Done: {task.title}"
            checked={task.status === 'done'}
            disabled={!mayDo}
            title={mayDo ? '' : `This task is ${task.assignee ?? say('nobody')}’s`}
            onchange={(event) => onsettle(task.status === 'lapsed' ? false : event.currentTarget.checked)}
        />
        <div class="min-w-0 flex-1">
            <span class="font-semibold {isOpen ? '' : 'struck'}">{task.title}</span>
            {#if task.status === 'lapsed'}<Stamp tone="harbor">lapsed</Stamp>
            {:else if task.priority === 'high'}<Stamp tone="madder">high</Stamp>
            {:else if task.priority === 'low'}<span class="chip">low</span>{/if}
            {#if task.notes}<div class="text-[12.5px] whitespace-pre-line text-ink-2">{task.notes}</div>{/if}
            {#if task.outcome}<div class="text-[12.5px] text-ink-2">
                    {task.status === 'lapsed' ? `No longer needed: ${task.outcome}.` : `“${task.outcome}”`}
                </div>{/if}
            <div class="text-[12.5px] text-ink-3">
                <a class="hover:text-iris" href="/records/{task.recordType}/{task.recordId}"
                    ><span class="figures">{task.recordNumber}</span> {task.recordTitle}</a
                >
                {#if task.ruleName}
                    · given by <a class="hover:text-iris" href="/ledger/{task.entry}">{task.ruleName}</a>
                {/if}
            </div>
            {#if task.together.length}
                <ul class="mt-1 text-[12.5px] text-ink-3" aria-label="Given together with it">
                    {#each task.together as one (one.id)}
                        <li>
                            <span aria-hidden="true">{one.status === 'open' ? '◦' : '✓'}</span>
                            <span class={one.status === 'open' ? '' : 'struck'}>{one.title}</span>{one.assignee ? `, ${one.assignee}` : ''}
                            {#if one.status !== 'open'}<span class="sr-only">({one.status})</span>{/if}
                        </li>
                    {/each}
                </ul>
            {/if}
        </div>
        {#if withPerson}<span class="word person shrink-0 text-[12.5px]">{task.assignee ?? say('nobody')}</span>{/if}
        {#if isOpen && mayDo && picked}<Checkbox
                class="pick mt-1.5 h-3.5 w-3.5 shrink-0 accent-(--ink)"
                aria-label="Choose: {task.title}"
                title="Choose it, to do something with several"
                value={task.id}
                bind:group={picked}
            />{/if}
    </div>
</div>
