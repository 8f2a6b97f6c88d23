<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import Broken from '../../parts/Broken.svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { fromLocalField, moment, toLocalField } from '../../state/moments';
    import { clock, session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import DateField from '../../parts/fields/DateField.svelte';
    import { go } from '../../router';
    import RecordPreview from '../lists/RecordPreview.svelte';
    import { dropped } from '../../parts/dropped';
    import FileButton from '../../parts/fields/FileButton.svelte';
    import BringTasks from './BringTasks.svelte';
    import NewTask from './NewTask.svelte';
    import GroupHeading from './GroupHeading.svelte';
    import TaskRow from './TaskRow.svelte';
    import { grouped } from './groups';
    import { refreshTasks, settle } from './settle';
    import { counted } from '../../state/words';

    crumbs.set({ label: 'Tasks' });
    type Task = Resources['TaskResource'];
    const client = useQueryClient();
    let whose = $state<'mine' | 'team' | 'all'>('mine');
    let status = $state<'open' | 'done' | 'lapsed'>('open');
    const tasks = createQuery(() => ({
        queryKey: ['tasks', whose, status],
        queryFn: () => ask(api.GET('/api/tasks', { params: { query: { whose, status, limit: 200 } } })),
    }));
    const groups = $derived.by(() => {
        const list = tasks.data?.tasks ?? [];
        if (!tasks.data || status !== 'open')
            return [{ key: status, label: status === 'done' ? 'Done' : 'Lapsed', tone: 'fern', tasks: list }];
        return grouped(list, tasks.data.week, clock.now).filter((group) => group.tasks.length || (carried && group.due));
    });
    /** The task that is being carried to another group. */
    let carried = $state<Task | null>(null);
    let over = $state('');
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
    const nothing = {
        open: ['Nothing to do.', 'A rule gives you a task when a record needs you.'],
        done: ['Nothing done yet.', 'What you complete is kept here.'],
        lapsed: ['Nothing has lapsed.', 'A rule can say when its task is no longer needed. Such tasks stand here.'],
    };
    const inAll = (some: number) =>
        status === 'open'
            ? counted(some, ['# task open', '# tasks open'])
            : status === 'done'
              ? counted(some, ['# task done', '# tasks done'])
              : counted(some, ['# task lapsed', '# tasks lapsed']);

    const refresh = () => refreshTasks(client);
    $effect(() => {
        void [whose, status];
        picked = [];
    });

    /** All of them, or none: what one of them refuses leaves the others as they are. */
    async function change(body: { dueAt?: string | null; assigneeId?: number; complete?: boolean }, told: (count: number) => string) {
        const ids = chosen.map((task) => task.id);
        asking = null;
        try {
            await ask(api.PATCH('/api/tasks', { body: { ids, ...body } }));
            toasts.tell(told(ids.length));
            picked = [];
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        refresh();
    }

    /** A group that the carried task may be dropped on. */
    function dropHere(key: string, due: string) {
        const hovers = (is: boolean) => (over = is ? key : '');
        return dropped(hovers, () => {
            if (carried) void carry(carried, due);
            carried = null;
        });
    }

    /** A task that is carried to another day; whoever did not mean it has it back at its old date. */
    async function carry(task: Task, dueAt: string | null, isBack = false) {
        const before = task.dueAt;
        try {
            await ask(api.PATCH('/api/tasks', { body: { ids: [task.id], dueAt } }));
            const told = dueAt ? `“${task.title}” is due ${moment(dueAt)}.` : `“${task.title}” has no date.`;
            toasts.tell(told, isBack ? undefined : { label: 'Undo', run: () => void carry({ ...task, dueAt }, before, true) });
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        refresh();
    }

    /** What a calendar file comes to, read before anything is done. */
    let calendar = $state.raw<{ text: string; tasks: Resources['CalendarTaskResource'][] } | null>(null);

    async function readCalendar(file: File) {
        try {
            const text = await file.text();
            calendar = { text, tasks: await ask(api.POST('/api/tasks/calendar', { body: { text, onlyRead: true } })) };
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    const mayDo = (task: Task) =>
        (session.me?.mayEditRecords ?? false) && (task.assigneeId === session.me?.id || (session.me?.mayDoAllTasks ?? false));

    async function settleWith(task: Task) {
        asking = null;
        await settle(client, task, true, outcome);
        outcome = '';
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
</script>

<svelte:window onkeydown={key} />

<div class="spread grid-cols-[minmax(0,1fr)] min-[1180px]:grid-cols-[minmax(0,1fr)_300px]">
    <section class="leaf left">
        <header class="flex items-start gap-3">
            <div>
                <h1>Tasks</h1>
                <p class="sub">{tasks.data ? inAll(tasks.data.total) : 'Reading…'}</p>
            </div>
            <div class="segments ml-auto" role="group" aria-label="Whose">
                <button type="button" aria-pressed={whose === 'mine'} onclick={() => (whose = 'mine')}>Mine</button>
                {#if team}<button type="button" aria-pressed={whose === 'team'} onclick={() => (whose = 'team')}>My team’s</button>{/if}
                <button type="button" aria-pressed={whose === 'all'} onclick={() => (whose = 'all')}>Everyone’s</button>
            </div>
            {#if session.me?.mayEditRecords}<span class="order-last max-[700px]:hidden"
                    ><FileButton says="From a calendar" accept=".ics,text/calendar" onchoose={(file) => void readCalendar(file)} /></span
                >{/if}
            {#if session.me?.mayEditRecords}<button type="button" class="btn go order-last" onclick={() => (giving = true)}>New task</button
                >{/if}
            <div class="segments" role="group" aria-label="State">
                <button type="button" aria-pressed={status === 'open'} onclick={() => (status = 'open')}>Open</button>
                <button type="button" aria-pressed={status === 'done'} onclick={() => (status = 'done')}>Done</button>
                <button type="button" aria-pressed={status === 'lapsed'} onclick={() => (status = 'lapsed')}>Lapsed</button>
            </div>
        </header>
        {#if chosen.length}
            <div class="flex items-center gap-2 border-b border-ruled bg-iris-wash px-7 py-2 text-[13px]">
                <b>{counted(chosen.length, ['# task chosen', '# tasks chosen'])}</b>
                <button
                    type="button"
                    class="btn ml-auto"
                    onclick={() => ((asking = 'reschedule'), (due = chosen[0]?.dueAt ? toLocalField(chosen[0].dueAt) : ''))}
                    >Another date…</button
                >
                <button type="button" class="btn" onclick={() => ((asking = 'reassign'), (to = chosen[0]?.assigneeId ?? 0))}
                    >Another person…</button
                >
                <button
                    type="button"
                    class="btn"
                    onclick={() => change({ complete: true }, (some) => counted(some, ['# task done.', '# tasks done.']))}>Done</button
                >
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
                    <h2>{nothing[status][0]}</h2>
                    <p>
                        {nothing[status][1]}
                        {#if whose === 'mine'}<button type="button" class="link" onclick={() => (whose = 'all')}>See everyone’s</button
                            >{/if}
                    </p>
                </div>
            {/if}
            {#if tasks.data && tasks.data.total > tasks.data.tasks.length}
                <p class="mini border-b border-ruled py-2 pl-[144px]">The first {tasks.data.tasks.length} are shown.</p>
            {/if}
            {#each groups as group (group.key)}
                <div
                    class="margined min-h-0! {over === group.key ? 'outline-2 -outline-offset-2 outline-iris' : ''}"
                    role="group"
                    aria-label={group.label}
                    {...group.due && carried ? dropHere(group.key, group.due) : {}}
                >
                    <GroupHeading label={group.label} tone={group.tone} count={group.tasks.length} />
                    {#each group.tasks as task (task.id)}
                        <svelte:boundary>
                            <TaskRow
                                {task}
                                tone={group.tone}
                                isCurrent={at === task.id}
                                withPerson={whose !== 'mine'}
                                mayDo={mayDo(task)}
                                bind:picked
                                oncurrent={() => (at = task.id)}
                                onsettle={(done) => settle(client, task, done)}
                                oncarry={(one) => (carried = one)}
                            />
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

{#if calendar}<BringTasks {...calendar} onclose={() => (calendar = null)} onbrought={refresh} />{/if}
{#if giving}<NewTask onclose={() => (giving = false)} ongiven={refresh} />{/if}
{#if asking === 'outcome' && current}
    <Confirm title="“{current.title}” is done" go="Done" onconfirm={() => settleWith(current)} onclose={() => (asking = null)}>
        <Area aria-label="What came of it" placeholder="What came of it? (kept in the ledger)" maxlength={500} bind:value={outcome} />
    </Confirm>
{/if}

{#if asking === 'reschedule'}
    <Confirm
        title={counted(chosen.length, ['Another date for # task', 'Another date for # tasks'])}
        go="Reschedule"
        onconfirm={() =>
            change({ dueAt: due ? fromLocalField(due) : null }, (some) => counted(some, ['# task rescheduled.', '# tasks rescheduled.']))}
        onclose={() => (asking = null)}
    >
        <DateField time label="Due" bind:value={due} />
        <p class="mini">Reminders and escalations that hang on the date move with it. Left empty, there is no date.</p>
    </Confirm>
{:else if asking === 'reassign'}
    <Confirm
        title={counted(chosen.length, ['# task to another person', '# tasks to another person'])}
        go="Reassign"
        onconfirm={() => change({ assigneeId: to }, (some) => counted(some, ['# task reassigned.', '# tasks reassigned.']))}
        onclose={() => (asking = null)}
    >
        <Select placeholder="" aria-label="To whom" bind:value={to}>
            {#each session.people.filter((person) => person.active) as person (person.id)}<option value={person.id}
                    >{person.name}, {person.team}</option
                >{/each}
        </Select>
    </Confirm>
{/if}
