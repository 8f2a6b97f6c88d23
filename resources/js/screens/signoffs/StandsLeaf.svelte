<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Shapes } from '../../api/client';
    import Shown from '../../parts/Shown.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { ahead, moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toneOf, wordOf } from './status';

    /* Where a sign-off stands: who was asked and what they said, in ink; who is still asked, pencilled; and the record's facts. */
    let { signOff }: { signOff: Shapes['SignOffShape'] } = $props();
    const type = $derived(session.type(signOff.recordType));
    const record = createQuery(() => ({
        queryKey: ['record', signOff.recordType, signOff.recordId],
        queryFn: () => ask(api.GET('/api/records/{type}/{id}', { params: { path: { type: signOff.recordType, id: signOff.recordId } } })),
    }));
    const facts = $derived.by(() => {
        const values = record.data?.values;
        if (!values) return [];
        const filled = type.fields.filter((field) => !field.system && field.name !== type.title && values[field.name] !== null);
        return filled.filter((field) => field.type !== 'long_text' && values[field.name] !== false).slice(0, 8);
    });
    const did = (seat: Shapes['SeatShape']) =>
        seat.byItself
            ? { yes: 'counts as a yes', no: 'counts as a no' }[seat.state as 'yes' | 'no']
            : { waiting: 'is asked', yes: 'agreed', no: 'declined', passed_on: 'did not answer; it was passed on', over: 'was not needed' }[
                  seat.state
              ];
</script>

<div class="margined min-h-0!" aria-label="Where it stands">
    {#each signOff.seats as seat, place (place)}
        <div class="line" class:pencilled={seat.state === 'waiting'}>
            <div class="m">
                {moment(seat.at ?? seat.askedAt)}
                {#if seat.state === 'waiting' && seat.dueAt}<div class="text-[10.5px] text-ink-3">due {ahead(seat.dueAt)}</div>{/if}
            </div>
            <div class="b text-[13.5px]!">
                {#if place === 0 || signOff.seats[place - 1]?.step !== seat.step}<span class="mini block">Step {seat.step}</span>{/if}
                <b>{seat.person}</b>
                {did(seat)}{seat.comment ? ':' : ''}
                {#if seat.comment}<q class="italic">{seat.comment}</q>{/if}
            </div>
        </div>
    {/each}
    <div class="line">
        <div class="m">{signOff.endedAt ? moment(signOff.endedAt) : 'now'}</div>
        <div class="b"><Stamp tone={toneOf(signOff.status)}>{wordOf(signOff.status)}</Stamp></div>
    </div>
</div>
{#if record.data}
    {@const shown = record.data}
    <dl class="px-7 pt-4 pb-6">
        {#each facts as field (field.name)}
            <div class="grid grid-cols-[120px_1fr] gap-2 border-b border-ruled py-1.5 text-[13px]">
                <dt class="text-ink-2">{field.label}</dt>
                <dd class="min-w-0 truncate font-medium"><Shown record={shown} {field} /></dd>
            </div>
        {/each}
    </dl>
{/if}
