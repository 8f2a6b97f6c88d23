<script lang="ts">
    import { untrack } from 'svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { moment } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';
    import ChooseRecord from './ChooseRecord.svelte';
    import { counted, say } from '../../state/words';

    /* To-dos of a calendar file: what each comes to, before anything is done. */
    type Props = { text: string; tasks: Resources['CalendarTaskResource'][]; onclose: () => void; onbrought: () => void };
    let { text, tasks, onclose, onbrought }: Props = $props();
    const what = {
        given: { tone: 'iris', label: say('new') },
        moved: { tone: 'marigold', label: 'other date' },
        done: { tone: 'fern', label: say('done') },
        same: { tone: 'harbor', label: 'as it is' },
        left: { tone: 'edge', label: 'left out' },
    };
    let record = $state.raw<Resources['FoundResource'] | null>(null);
    let busy = $state(false);
    const news = untrack(() => tasks.filter((task) => task.what === 'given').length);
    const changes = untrack(() => tasks.filter((task) => task.what !== 'same' && task.what !== 'left').length);

    async function bring() {
        if (changes === 0) return onclose();
        if (news && !record) return toasts.complain('Say which record the new tasks are about.');
        busy = true;
        try {
            const about = record ? { recordType: record.type, recordId: record.id } : {};
            await ask(api.POST('/api/tasks/calendar', { body: { text, ...about } }));
            toasts.tell(counted(changes, ['# task brought in.', '# tasks brought in.']));
            onbrought();
            onclose();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
    }
</script>

<Confirm title="From the calendar" go={changes ? 'Import them' : 'Close'} {busy} onconfirm={bring} {onclose}>
    <ul class="max-h-[40vh] overflow-auto text-ink" aria-label="To-dos of the file">
        {#each tasks as task, index (index)}
            <li class="border-b border-ruled py-1.5">
                <div class="flex items-baseline gap-2">
                    <span class="min-w-0 flex-1 truncate">{task.title}</span>
                    <span class="figures mini">{task.dueAt ? moment(task.dueAt) : 'any time'}</span>
                    <Stamp tone={what[task.what].tone}>{what[task.what].label}</Stamp>
                </div>
                {#each task.said as said (said)}<p class="mini">{said}</p>{/each}
            </li>
        {/each}
    </ul>
    {#if news}<div>
            <span class="text-ink">{news === 1 ? 'The new one is' : `The ${news} new ones are`} about</span>
            <ChooseRecord bind:record />
        </div>{/if}
</Confirm>
