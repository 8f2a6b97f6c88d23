<script lang="ts">
    import { Input, Select } from 'flowbite-svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import DateField from '../../parts/fields/DateField.svelte';
    import { fromLocalField } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import ChooseRecord from './ChooseRecord.svelte';

    /* A task that somebody gives, themselves or another, about a record. */
    type Found = Resources['FoundResource'];
    type Props = { about?: Found; onclose: () => void; ongiven: () => void };
    let { about, onclose, ongiven }: Props = $props();
    let title = $state('');
    let notes = $state('');
    let due = $state('');
    let to = $state(session.me?.id ?? 0);
    let priority = $state<'low' | 'normal' | 'high'>('normal');
    // svelte-ignore state_referenced_locally
    let record = $state.raw<Found | null>(about ?? null);
    let busy = $state(false);
    const problem = $derived(title.trim() === '' ? 'Say what is to be done.' : !record ? 'Say which record it is about.' : '');

    async function give() {
        if (problem || !record) return toasts.complain(problem);
        busy = true;
        try {
            await ask(
                api.POST('/api/tasks', {
                    body: {
                        title: title.trim(),
                        recordType: record.type,
                        recordId: record.id,
                        dueAt: due ? fromLocalField(due) : null,
                        assigneeId: to,
                        notes,
                        priority,
                    },
                }),
            );
            toasts.tell(`“${title.trim()}” is given.`);
            ongiven();
            onclose();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
    }
</script>

<Confirm title="A new task" go="Give the task" {busy} onconfirm={give} {onclose}>
    <label class="block text-ink">What is to be done<Input maxlength={200} required bind:value={title} placeholder="Ring Marit" /></label>
    <div>
        <span class="text-ink">About</span>
        <ChooseRecord bind:record />
    </div>
    <div class="grid grid-cols-2 gap-3">
        <label class="block text-ink">Due<DateField time label="Due" bind:value={due} /></label>
        <label class="block text-ink"
            ><span>Priority</span><Select placeholder="" bind:value={priority}
                ><option value="low">low</option><option value="normal">normal</option><option value="high">high</option></Select
            ></label
        >
    </div>
    <label class="block text-ink"
        >Who does it<Select placeholder="" bind:value={to}>
            {#each session.people.filter((person) => person.active) as person (person.id)}<option value={person.id}
                    >{person.name}, {person.team}</option
                >{/each}
        </Select></label
    >
    <Area aria-label="Notes" placeholder="Notes" rows={3} maxlength={2000} bind:value={notes} />
</Confirm>
