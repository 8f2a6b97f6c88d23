<script lang="ts">
    import { inFigures } from '../../state/numbers';
    import { Select } from 'flowbite-svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import { counted, within } from '../../state/words';

    /* Somebody leaves: what is theirs is counted first, and goes to one other person in a single step. */
    let {
        person,
        others,
        ondone,
        oncancel,
    }: {
        person: Resources['PersonResource'];
        others: Resources['PersonResource'][];
        ondone: () => void;
        oncancel: () => void;
    } = $props();
    // svelte-ignore state_referenced_locally
    let to = $state(String(person.deputyId ?? person.managerId ?? ''));
    let problem = $state('');
    let busy = $state(false);
    const theirs = createQuery(() => ({
        queryKey: ['leaving', person.id],
        queryFn: () => ask(api.GET('/api/people/{id}/leaving', { params: { path: { id: person.id } } })),
    }));
    const list = $derived(
        theirs.data
            ? [
                  ...theirs.data.records.map((one) => `${inFigures(one.count)} ${within(one.type)}`),
                  ...(theirs.data.tasks ? [counted(theirs.data.tasks, ['# open task', '# open tasks'])] : []),
                  ...(theirs.data.signOffs ? [counted(theirs.data.signOffs, ['# sign-off', '# sign-offs'])] : []),
                  ...(theirs.data.slips ? [counted(theirs.data.slips, ['# reply slip', '# reply slips'])] : []),
                  ...(theirs.data.people
                      ? [counted(theirs.data.people, ['the management of # person', 'the management of # people'])]
                      : []),
              ]
            : [],
    );

    async function leave(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        problem = '';
        try {
            await ask(api.POST('/api/people/{id}/leave', { params: { path: { id: person.id } }, body: { to: Number(to) } }));
            ondone();
        } catch (thrown) {
            problem = said(thrown);
        }
        busy = false;
    }
</script>

<form class="callout mb-4 grid gap-3" onsubmit={leave} aria-label="{person.name} leaves">
    {#if theirs.data}
        <p>
            {#if list.length}To whoever takes over: <b class="font-semibold">{list.join(', ')}</b>.
            {:else}Nothing is theirs.{/if}
            {person.name} is signed out everywhere. It can be undone: what nobody has touched since comes back.
        </p>
        {#if theirs.data.rules.length}
            <p>Rules that name {person.name} go on with whoever takes over; look at them: {theirs.data.rules.join(', ')}.</p>
        {/if}
    {:else}<p>{theirs.isError ? said(theirs.error) : 'Counting…'}</p>{/if}
    <label class="grid gap-0.5 font-semibold"
        ><span>Who takes over?</span>
        <Select placeholder="" class="font-normal" required bind:value={to}>
            <option value="">choose somebody</option>
            {#each others as one (one.id)}<option value={String(one.id)}>{one.name}{one.team ? `, ${one.team}` : ''}</option>{/each}
        </Select></label
    >
    {#if problem}<p class="note-wrong" role="alert">{problem}</p>{/if}
    <div class="flex gap-2">
        <button class="btn danger" disabled={busy || !theirs.data}>{busy ? 'Handing over…' : 'Hand over and leave'}</button>
        <button type="button" class="btn quiet" onclick={oncancel}>Not now</button>
    </div>
</form>
