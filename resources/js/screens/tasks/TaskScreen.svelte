<script lang="ts">
    import { Checkbox, Select } from 'flowbite-svelte';
    import Broken from '../../parts/Broken.svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Shapes } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { counted, daysUntil, fromLocalField, localDay, moment, timeOfDay, toLocalField } from '../../state/moments';
    import { clock, session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import DateField from '../../parts/fields/DateField.svelte';
    import { go } from '../../router';
    import RecordPreview from '../records/RecordPreview.svelte';
    import NewTask from './NewTask.svelte';

    crumbs.set({ label: 'Tasks' });
    type Task = Shapes['TaskShape'];
    const client = useQueryClient();
    let whose = $state<'mine' | 'team' | 'all'>('mine');
    let status = $state<'open' | 'done'>('open');
    const tasks = createQuery(() => ({
        queryKey: ['tasks', whose, status],
        queryFn: () => ask(api.GET('/api/tasks', { params: { query: { whose, status, limit: 200 } } })),
    }));
    /** Days that are left of this week, after today. */
    const daysLeft = $derived((7 - new Date(`${localDay(clock.now)}T00:00:00Z`).getUTCDay()) % 7);
    const groups = $derived.by(() => {
        const list = tasks.data?.tasks ?? [];
        if (status === 'done') return [{ label: 'Done', tone: 'fern', tasks: list }];
        const of = (task: Task) => {
            if (!task.dueAt) return 'later';
            if (Date.parse(task.dueAt) < clock.now.getTime()) return 'late';
            const days = daysUntil(localDay(task.dueAt));
            return days <= 0 ? 'today' : days <= daysLeft ? 'week' : 'later';
        };
        return [
            { key: 'late', label: 'Late', tone: 'madder' },
            { key: 'today', label: 'Today', tone: 'marigold' },
            { key: 'week', label: 'This week', tone: 'iris' },
            { key: 'later', label: 'Later, or at no set time', tone: 'harbor' },
        ]
            .map((group) => ({ ...group, tasks: list.filter((task) => of(task) === group.key) }))
            .filter((group) => group.tasks.length);
    });
    let picked = $state<number[]>([]);
    let asking = $state<'reschedule' | 'reassign' | 'outcome' | null>(null);
    let giving = $state(false);
    let outcome = $state('');
    const team = $derived(session.people.find((person) => person.id === session.me?.id)?.team ?? '');
    /** The task under the cursor; its record stands beside. */
    let at = $state<number | null>(null);
    let due = $state('');
    let to = $state(0);
    const shown = $derived(groups.flatMap((group) => group.tasks));
    const chosen = $derived(shown.filter((task) => picked.includes(task.id)));
    const current = $derived(shown.find((task) => task.id === at));
    const beside = createQuery(() => ({
        queryKey: ['record', current?.recordType, current?.recordId],
        enabled: current !== undefined,
        queryFn: () =>
            ask(
                api.GET('/api/records/{type}/{id}', {
                    params: { path: { type: current?.recordType ?? '', id: current?.recordId ?? 0 } },
                }),
            ),
    }));
    const refresh = () => {
        for (const key of ['tasks', 'account', 'ledger', 'today', 'lines']) void client.invalidateQueries({ queryKey: [key] });
    };
    $effect(() => {
        void [whose, status];
        picked = [];
    });

    /** All of them, or none: what one of them refuses leaves the others as they are. */
    async function change(body: { dueAt?: string | null; assigneeId?: number; complete?: boolean }, told: string) {
        const ids = chosen.map((task) => task.id);
        asking = null;
        try {
            await ask(api.PATCH('/api/tasks', { body: { ids, ...body } }));
            toasts.tell(`${counted(ids.length, 'task')} ${told}.`);
            picked = [];
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        refresh();
    }

    const mayDo = (task: Task) =>
        (session.me?.mayEditRecords ?? false) && (task.assigneeId === session.me?.id || (session.me?.mayDoAllTasks ?? false));

    async function settleWith(task: Task) {
        asking = null;
        await settle(task, true, outcome);
        outcome = '';
    }

    async function settle(task: Task, done: boolean, came = '') {
        try {
            const call = { params: { path: { id: task.id } } };
            await ask(
                done
                    ? api.POST('/api/tasks/{id}/complete', { ...call, body: { outcome: came } })
                    : api.POST('/api/tasks/{id}/reopen', call),
            );
            if (done) toasts.tell(`“${task.title}” is done.`, { label: 'Undo', run: () => void settle(task, false) });
            else toasts.tell(`“${task.title}” is open again.`);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        refresh();
    }

    function key(event: KeyboardEvent) {
        const target = event.target as HTMLElement;
        if (event.ctrlKey || event.metaKey || asking || giving || target.closest('dialog')) return;
        const isBox = target.matches('[data-task] input');
        if (!isBox && ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)) return;
        const one = current;
        if (event.key === 'n' && session.me?.mayEditRecords) giving = true;
        else if (event.key === 'o' && one && status === 'open' && mayDo(one)) asking = 'outcome';
        else if (event.key === 'd' && one && status === 'open' && mayDo(one)) {
            if (!picked.includes(one.id)) picked = [one.id];
            [asking, due] = ['reschedule', one.dueAt ? toLocalField(one.dueAt) : ''];
        } else if (event.key === 'Enter' && one && isBox) go(`/records/${one.recordType}/${one.recordId}`);
        else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') walk(event);
        else return;
        event.preventDefault();
    }

    function walk(event: KeyboardEvent) {
        const boxes = [...document.querySelectorAll<HTMLElement>('[data-task] input:not(.pick)')];
        const at = boxes.indexOf(document.activeElement as HTMLElement);
        boxes[Math.max(0, Math.min(boxes.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)))]?.focus();
    }
    const margin = (task: Task) => {
        if (status === 'done') return task.doneAt ? moment(task.doneAt) : '';
        if (!task.dueAt) return 'any time';
        const days = daysUntil(localDay(task.dueAt));
        if (days === 0) return timeOfDay(task.dueAt);
        return days < 0 && days > -100 ? `${-days} d late` : moment(task.dueAt);
    };
</script>

<svelte:window onkeydown={key} />

<div class="spread grid-cols-[minmax(0,1fr)] min-[1180px]:grid-cols-[minmax(0,1fr)_300px]">
    <section class="leaf left">
        <header class="flex items-start gap-3">
            <div>
                <h1>Tasks</h1>
                <p class="sub">{tasks.data ? `${counted(tasks.data.total, 'task')} ${status === 'open' ? 'open' : 'done'}` : 'Reading…'}</p>
            </div>
            <div class="segments ml-auto" role="group" aria-label="Whose">
                <button type="button" aria-pressed={whose === 'mine'} onclick={() => (whose = 'mine')}>Mine</button>
                {#if team}<button type="button" aria-pressed={whose === 'team'} onclick={() => (whose = 'team')}>My team’s</button>{/if}
                <button type="button" aria-pressed={whose === 'all'} onclick={() => (whose = 'all')}>Everyone’s</button>
            </div>
            {#if session.me?.mayEditRecords}<button type="button" class="btn go order-last" onclick={() => (giving = true)}>New task</button
                >{/if}
            <div class="segments" role="group" aria-label="State">
                <button type="button" aria-pressed={status === 'open'} onclick={() => (status = 'open')}>Open</button>
                <button type="button" aria-pressed={status === 'done'} onclick={() => (status = 'done')}>Done</button>
            </div>
        </header>
        {#if chosen.length}
            <div class="flex items-center gap-2 border-b border-ruled bg-iris-wash px-7 py-2 text-[13px]">
                <b>{counted(chosen.length, 'task')} chosen</b>
                <button
                    type="button"
                    class="btn ml-auto"
                    onclick={() => ((asking = 'reschedule'), (due = chosen[0]?.dueAt ? toLocalField(chosen[0].dueAt) : ''))}
                    >Another date…</button
                >
                <button type="button" class="btn" onclick={() => ((asking = 'reassign'), (to = chosen[0]?.assigneeId ?? 0))}
                    >Another person…</button
                >
                <button type="button" class="btn" onclick={() => change({ complete: true }, 'done')}>Done</button>
                <button type="button" class="btn quiet" onclick={() => (picked = [])}>None</button>
            </div>
        {/if}
        <div class="scroll" style="--margin-at: 128px">
            {#if tasks.isError}
                <div class="empty">
                    <h2>The tasks cannot be shown.</h2>
                    <p>{said(tasks.error)}</p>
                </div>
            {:else if tasks.data && tasks.data.tasks.length === 0}
                <div class="empty">
                    <h2>{status === 'open' ? 'Nothing to do.' : 'Nothing done yet.'}</h2>
                    <p>
                        {status === 'open' ? 'A rule gives you a task when a record needs you.' : 'What you complete is kept here.'}
                        {#if whose === 'mine'}<button type="button" class="link" onclick={() => (whose = 'all')}>See everyone’s</button
                            >{/if}
                    </p>
                </div>
            {/if}
            {#if tasks.data && tasks.data.total > tasks.data.tasks.length}
                <p class="mini border-b border-ruled py-2 pl-[144px]">The first {tasks.data.tasks.length} are shown.</p>
            {/if}
            {#each groups as group (group.label)}
                <div class="margined min-h-0!">
                    <div class="line min-h-0! bg-[#faf6ec]">
                        <div class="m h"></div>
                        <div class="b py-1.5! text-[12px]! font-semibold tone-{group.tone}">
                            {group.label} <span class="figures text-ink-3">{group.tasks.length}</span>
                        </div>
                    </div>
                    {#each group.tasks as task (task.id)}
                        <svelte:boundary>
                            <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
                            <div
                                class="line {at === task.id ? 'bg-[#f4f0fe]' : ''}"
                                data-task={task.id}
                                onclick={() => (at = task.id)}
                                onfocusin={() => (at = task.id)}
                            >
                                <div class="m {group.tone === 'madder' ? 'text-madder!' : ''}">
                                    {margin(task)}
                                </div>
                                <div class="b flex items-start gap-3">
                                    <Checkbox
                                        class="mt-1 h-4 w-4"
                                        aria-label="Done: {task.title}"
                                        checked={task.status === 'done'}
                                        disabled={!mayDo(task)}
                                        title={mayDo(task) ? '' : `This task is ${task.assignee ?? 'nobody'}’s`}
                                        onchange={(event) => settle(task, event.currentTarget.checked)}
                                    />
                                    <div class="min-w-0 flex-1">
                                        <span class="font-semibold {task.status === 'done' ? 'struck' : ''}">{task.title}</span>
                                        {#if task.priority === 'high'}<Stamp tone="madder">high</Stamp
                                            >{:else if task.priority === 'low'}<span class="chip">low</span>{/if}
                                        {#if task.notes}<div class="text-[12.5px] whitespace-pre-line text-ink-2">{task.notes}</div>{/if}
                                        {#if task.outcome}<div class="text-[12.5px] text-ink-2">“{task.outcome}”</div>{/if}
                                        <div class="text-[12.5px] text-ink-3">
                                            <a class="hover:text-iris" href="/records/{task.recordType}/{task.recordId}"
                                                ><span class="figures">{task.recordNumber}</span> {task.recordTitle}</a
                                            >
                                            {#if task.ruleName}
                                                · given by <a class="hover:text-iris" href="/ledger/{task.entry}">{task.ruleName}</a>
                                            {/if}
                                        </div>
                                    </div>
                                    {#if whose !== 'mine'}<span class="word person shrink-0 text-[12.5px]">{task.assignee ?? 'nobody'}</span
                                        >{/if}
                                    {#if status === 'open' && mayDo(task)}<Checkbox
                                            class="pick mt-1.5 h-3.5 w-3.5 shrink-0 accent-(--ink)"
                                            aria-label="Choose: {task.title}"
                                            title="Choose it, to do something with several"
                                            value={task.id}
                                            bind:group={picked}
                                        />{/if}
                                </div>
                            </div>
                            {#snippet failed()}<Broken what="task" />{/snippet}
                        </svelte:boundary>
                    {/each}
                </div>
            {/each}
        </div>
        <div class="keys shrink-0">
            <span><kbd>↑ ↓</kbd>move</span><span><kbd>Space</kbd>done, or open again</span><span
                ><kbd>o</kbd>done, with what came of it</span
            ><span><kbd>d</kbd>another date</span><span><kbd>n</kbd>new</span><span><kbd>Enter</kbd>the record</span>
        </div>
    </section>
    <section class="leaf right max-[1179px]:hidden!">
        {#if beside.data}<RecordPreview record={beside.data} />
        {:else}<div class="empty"><p>The record of a task is shown here.</p></div>{/if}
    </section>
</div>

{#if giving}<NewTask onclose={() => (giving = false)} ongiven={refresh} />{/if}
{#if asking === 'outcome' && current}
    <Confirm title="“{current.title}” is done" go="Done" onconfirm={() => settleWith(current)} onclose={() => (asking = null)}>
        <Area aria-label="What came of it" placeholder="What came of it? (kept in the ledger)" maxlength={500} bind:value={outcome} />
    </Confirm>
{/if}

{#if asking === 'reschedule'}
    <Confirm
        title="Another date for {counted(chosen.length, 'task')}"
        go="Reschedule"
        onconfirm={() => change({ dueAt: due ? fromLocalField(due) : null }, 'rescheduled')}
        onclose={() => (asking = null)}
    >
        <DateField time label="Due" bind:value={due} />
        <p class="mini">Reminders and escalations that hang on the date move with it. Left empty, there is no date.</p>
    </Confirm>
{:else if asking === 'reassign'}
    <Confirm
        title="{counted(chosen.length, 'task')} to another person"
        go="Reassign"
        onconfirm={() => change({ assigneeId: to }, 'reassigned')}
        onclose={() => (asking = null)}
    >
        <Select placeholder="" aria-label="To whom" bind:value={to}>
            {#each session.people.filter((person) => person.active) as person (person.id)}<option value={person.id}
                    >{person.name}, {person.team}</option
                >{/each}
        </Select>
    </Confirm>
{/if}
