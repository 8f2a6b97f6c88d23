<script lang="ts">
    import { Checkbox, Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { ArrowUp, X } from '@lucide/svelte';
    import { api, ask, type Resources } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import type { JsonObject } from '../../state/pointer';
    import DueFields from '../../parts/editors/DueFields.svelte';
    import { rungFile, rungOf, type Rung } from './rungs';
    import { Kept, type Draft } from './kept.svelte';
    import KeptFrame from './KeptFrame.svelte';
    import { counted, say } from '../../state/words';

    type Edited = Draft & { rungs: Rung[] };

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Ladders' });
    const ladders = createQuery(() => ({ queryKey: ['ladders'], queryFn: () => ask(api.GET('/api/ladders')) }));
    const kept = new Kept<Edited>(useQueryClient(), 'ladders');
    const offers = createQuery(() => ({ queryKey: ['ladder-offers'], queryFn: () => ask(api.GET('/api/ladders/offers')) }));
    const acts = $derived(offers.data?.acts ?? []);
    const people = $derived((offers.data?.people ?? []).map((offer) => ({ key: JSON.stringify(offer.value), label: offer.label })));
    const owner: JsonObject = { kind: 'owner' };
    const above = (of: JsonObject): JsonObject => ({ kind: 'manager', of });

    /** Rungs whose every word about time is shown: those that say one, and those that were asked for. */
    let full = $state.raw<Rung[]>([]);
    const isFull = (rung: Rung) => full.includes(rung) || ['time', 'roll', 'clock'].some((key) => rung.due[key] !== undefined);

    /** What a rung has stays on offer, also where it is found in a way that others here are not. */
    function offered({ to, said }: Rung) {
        return people.some((option) => option.key === to) ? people : [...people, { key: to, label: said || 'as it is' }];
    }

    const open = (ladder: Resources['LadderResource']) =>
        kept.open({
            id: ladder.id,
            version: ladder.version,
            name: ladder.name,
            rungs: (ladder.rungs as JsonObject[]).map((rung, index) => rungOf(rung, ladder.said[index])),
        });

    const begin = () =>
        kept.open({
            id: null,
            version: 0,
            name: '',
            rungs: [
                rungOf({ to: owner, do: ['tell'] }),
                rungOf({ after: { amount: 1, unit: 'working_day' }, to: above(owner), do: ['tell'] }),
            ],
        });

    const keep = () =>
        kept.keep<unknown>(
            ({ id, version, name, rungs: written }) => {
                const known = acts.map((act) => act.kind);
                const rungs = written.map((rung) => rungFile(rung, known));
                return id === null
                    ? ask(api.POST('/api/ladders', { body: { name, rungs } }))
                    : ask(api.PUT('/api/ladders/{id}', { params: { path: { id } }, body: { version, name, rungs } }));
            },
            ({ name }) => `“${name}” is saved.`,
        );
</script>

<KeptFrame
    {kept}
    title="Ladders"
    sub="Who is told when work stays undone, and who after them."
    items={ladders.data}
    fresh="New ladder"
    onnew={begin}
    onopen={open}
    onkeep={() => void keep()}
    ondelete={() => void kept.delete((id) => ask(api.DELETE('/api/ladders/{id}', { params: { path: { id } } })))}
    none={['No ladder yet.', 'A ladder has rungs: after a day tell the owner’s manager, after two more theirs.']}
    idle={[
        'Rules climb a ladder until the work is done.',
        'Choose one to see its rungs. A rule uses it with the line “Escalate up a ladder”.',
    ]}
    loses="A ladder that a rule uses cannot be deleted."
>
    {#snippet row(ladder)}
        <b class="font-semibold">{ladder.name}</b>
        <span class="mini"
            >{counted(ladder.rungs.length, ['# rung', '# rungs'])}{ladder.rules.length ? `, used by ${ladder.rules.join(', ')}` : ''}</span
        >
        {#each ladder.said as rung, index (index)}<span class="mini block">{index + 1}. {rung}</span>{/each}
    {/snippet}
    {#snippet editor(edited)}
        <ol class="space-y-3">
            {#each edited.rungs as rung, index (index)}
                <li class="rounded-lg border border-edge p-3">
                    <div class="rung-row">
                        <b class="figures w-5">{index + 1}</b>
                        <span class="w-20 shrink-0">{index === 0 ? say('after') : 'then after'}</span>
                        <div class="grid gap-2">
                            <DueFields bind:due={rung.due} rolls={isFull(rung)} clocks={isFull(rung)} focus={false} />
                        </div>
                        {#if !isFull(rung)}<button type="button" class="link text-[12.5px]" onclick={() => (full = [...full, rung])}
                                >+ time of day…</button
                            >{/if}
                        <span class="ml-auto flex">
                            {#if index > 0}<button
                                    type="button"
                                    class="icon"
                                    aria-label="Move up"
                                    onclick={() => edited.rungs.splice(index - 1, 0, ...edited.rungs.splice(index, 1))}
                                    ><ArrowUp size={14} /></button
                                >{/if}
                            {#if edited.rungs.length > 1}<button
                                    type="button"
                                    class="icon"
                                    aria-label="Take away"
                                    onclick={() => edited.rungs.splice(index, 1)}><X size={14} /></button
                                >{/if}
                        </span>
                    </div>
                    <div class="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2 pl-7">
                        <Select placeholder="" class="w-48" aria-label="Whom" bind:value={rung.to}>
                            {#each offered(rung) as option (option.key)}<option value={option.key}>{option.label}</option>{/each}
                        </Select>
                        {#each acts as act (act.kind)}<label class="flex items-center gap-1.5"
                                ><Checkbox value={act.kind} bind:group={rung.acts} />{act.label}</label
                            >{/each}
                    </div>
                </li>
            {/each}
        </ol>
        {#if edited.rungs.length < 10}<button
                type="button"
                class="btn mt-3"
                onclick={() =>
                    edited.rungs.push(
                        rungOf({
                            after: { amount: 2, unit: 'working_day' },
                            to: above(above(owner)),
                            do: ['tell'],
                        }),
                    )}>Add a rung</button
            >{/if}
    {/snippet}
</KeptFrame>
