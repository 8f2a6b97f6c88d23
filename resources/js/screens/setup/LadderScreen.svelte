<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { ArrowUp, X } from '@lucide/svelte';
    import { api, ask, Refusal, said, type Shapes } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import { personExpression } from '../../parts/editors';
    import { peopleOptions, personOptions } from '../../parts/offers';
    import { crumbs } from '../../state/crumbs.svelte';
    import { counted } from '../../state/moments';
    import type { JsonObject } from '../../state/pointer';
    import { session } from '../../state/session.svelte';
    import DueFields from '../../parts/words/DueFields.svelte';
    import { rungFile, rungOf, type Rung } from './rungs';
    import { toasts } from '../../state/toasts.svelte';

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Ladders' });
    const client = useQueryClient();
    const may = $derived(session.me?.mayEditRules ?? false);
    const ladders = createQuery(() => ({ queryKey: ['ladders'], queryFn: () => ask(api.GET('/api/ladders')) }));
    let editing = $state<{ id: number | null; version: number; name: string; rungs: Rung[]; rules: string[] } | null>(null);
    let refusal = $state<Refusal | null>(null);
    let dropping = $state(false);
    const acts = [
        { key: 'tell', label: 'tell them' },
        { key: 'reassign', label: 'make them the owner' },
        { key: 'raise', label: 'raise the priority' },
    ];
    // Whoever can be found from a record of any type.
    const people = $derived([
        ...personOptions(session.schema?.types[0]?.name ?? '').filter(
            (option) => !option.key.startsWith('field:') && !option.key.includes('doer'),
        ),
        { key: 'manager:manager:owner', label: 'the owner’s manager’s manager', group: 'From the record' },
        ...peopleOptions(),
    ]);

    /** Rungs whose every word about time is shown: those that say one, and those that were asked for. */
    let full = $state.raw<Rung[]>([]);
    const isFull = (rung: Rung) => full.includes(rung) || ['time', 'roll', 'clock'].some((key) => rung.due[key] !== undefined);

    /** What a rung has stays on offer, also where it is found in a way that others here are not. */
    function offered(key: string) {
        if (people.some((option) => option.key === key)) return people;
        const path = key.startsWith('field:') ? session.path(session.schema?.types[0]?.name ?? '', key.slice(6))?.label : undefined;
        return [...people, { key, label: path ? `the ${path}` : key.replace(/^field:/, 'the person in '), group: 'As it is' }];
    }

    function open(ladder: Shapes['LadderShape'] | null) {
        refusal = null;
        editing = ladder
            ? {
                  id: ladder.id,
                  version: ladder.version,
                  name: ladder.name,
                  rules: ladder.rules,
                  rungs: (ladder.rungs as JsonObject[]).map(rungOf),
              }
            : {
                  id: null,
                  version: 0,
                  name: '',
                  rules: [],
                  rungs: [
                      rungOf({ to: { kind: 'owner' }, do: ['tell'] }),
                      rungOf({ after: { amount: 1, unit: 'working_day' }, to: personExpression('manager:owner'), do: ['tell'] }),
                  ],
              };
    }

    async function keep(event: SubmitEvent) {
        event.preventDefault();
        if (!editing) return;
        refusal = null;
        const { id, version, name } = editing;
        const rungs = editing.rungs.map(rungFile);
        try {
            if (id === null) await ask(api.POST('/api/ladders', { body: { name, rungs } }));
            else await ask(api.PUT('/api/ladders/{id}', { params: { path: { id } }, body: { version, name, rungs } }));
            await client.invalidateQueries({ queryKey: ['ladders'] });
            toasts.tell(`“${name}” is kept.`);
            editing = null;
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            else toasts.complain(said(thrown));
        }
    }

    async function drop() {
        dropping = false;
        try {
            await ask(api.DELETE('/api/ladders/{id}', { params: { path: { id: editing?.id ?? 0 } } }));
            await client.invalidateQueries({ queryKey: ['ladders'] });
            editing = null;
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<div class="spread grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
    <section class="leaf left">
        <header class="flex items-start gap-3">
            <div>
                <h1>Ladders</h1>
                <p class="sub">Who is told when work stays undone, and who after them.</p>
            </div>
            {#if may}<button type="button" class="btn go ml-auto" onclick={() => open(null)}>New ladder</button>{/if}
        </header>
        <div class="scroll">
            {#each ladders.data ?? [] as ladder (ladder.id)}
                <button
                    type="button"
                    class="block w-full border-b border-ruled px-7 py-3 text-left text-[13px] hover:bg-[#faf6ec] {editing?.id === ladder.id
                        ? 'bg-[#f4f0fe]'
                        : ''}"
                    onclick={() => open(ladder)}
                >
                    <b class="font-semibold">{ladder.name}</b>
                    <span class="mini"
                        >{counted(ladder.rungs.length, 'rung')}{ladder.rules.length ? `, used by ${ladder.rules.join(', ')}` : ''}</span
                    >
                    {#each ladder.said as rung, index (index)}<div class="mini">{index + 1}. {rung}</div>{/each}
                </button>
            {:else}
                {#if ladders.data}<div class="empty">
                        <h2>No ladder yet.</h2>
                        <p>A ladder has rungs: after a day tell the owner’s manager, after two more theirs.</p>
                    </div>{/if}
            {/each}
        </div>
    </section>
    <section class="leaf right">
        {#if editing}
            {@const edited = editing}
            <form class="flex min-h-0 flex-1 flex-col" onsubmit={keep}>
                <header class="flex shrink-0 items-center gap-2 border-b border-ruled px-7 py-4">
                    <input
                        class="input max-w-72"
                        aria-label="Name"
                        placeholder="Name of the ladder"
                        maxlength="60"
                        bind:value={edited.name}
                        disabled={!may}
                    />
                    {#if may}
                        {#if edited.id !== null}<button type="button" class="btn danger ml-auto" onclick={() => (dropping = true)}
                                >Drop…</button
                            >{/if}
                        <button class="btn go {edited.id === null ? 'ml-auto' : ''}">Keep</button>
                    {/if}
                </header>
                <fieldset class="scroll px-7 py-4 text-[13px]" disabled={!may}>
                    {#if refusal}<p class="callout bad mb-3">{refusal.problem.problems?.[0]?.message ?? refusal.message}</p>{/if}
                    <ol class="space-y-3">
                        {#each edited.rungs as rung, index (index)}
                            <li class="rounded-lg border border-edge p-3">
                                <div class="rung-row">
                                    <b class="figures w-5">{index + 1}</b>
                                    <span class="w-20 shrink-0">{index === 0 ? 'after' : 'then after'}</span>
                                    <div class="grid gap-2">
                                        <DueFields bind:due={rung.due} rolls={isFull(rung)} clocks={isFull(rung)} focus={false} />
                                    </div>
                                    {#if !isFull(rung)}<button
                                            type="button"
                                            class="link text-[12.5px]"
                                            onclick={() => (full = [...full, rung])}>+ time of day…</button
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
                                <div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 pl-7">
                                    <select class="input w-52!" aria-label="Whom" bind:value={rung.to}>
                                        {#each offered(rung.to) as option (option.key)}<option value={option.key}>{option.label}</option
                                            >{/each}
                                    </select>
                                    {#each acts as act (act.key)}<label class="flex items-center gap-1.5"
                                            ><input
                                                type="checkbox"
                                                class="accent-(--iris)"
                                                value={act.key}
                                                bind:group={rung.acts}
                                            />{act.label}</label
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
                                        to: personExpression('manager:manager:owner'),
                                        do: ['tell'],
                                    }),
                                )}>Add a rung</button
                        >{/if}
                </fieldset>
            </form>
        {:else}
            <div class="empty">
                <h2>Rules climb a ladder until the work is done.</h2>
                <p>Choose one to see its rungs. A rule uses it with the line “Escalate up a ladder”.</p>
            </div>
        {/if}
    </section>
</div>

{#if dropping && editing}
    <Confirm title="Drop “{editing.name}”?" go="Drop it" danger onconfirm={drop} onclose={() => (dropping = false)}>
        <p>No rule uses it any more then.</p>
    </Confirm>
{/if}
