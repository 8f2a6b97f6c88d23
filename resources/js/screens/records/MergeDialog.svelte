<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { Radio } from 'flowbite-svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import { findRecords } from '../../api/records';
    import Choose from '../../parts/Choose.svelte';
    import Confirm from '../../parts/Confirm.svelte';
    import Floating from '../../parts/Floating.svelte';
    import Shown from '../../parts/Shown.svelte';
    import { isChangeable } from '../../state/changeable';
    import { toasts } from '../../state/toasts.svelte';
    import { within } from '../../state/words';

    /* Two records that are one: which is the other, and whose value stays where they differ. */
    type Props = { type: Resources['TypeResource']; record: Resources['RecordResource']; onclose: () => void };
    let { type, record, onclose }: Props = $props();
    const client = useQueryClient();
    let other = $state<number | null>(null);
    let choosing = $state<HTMLElement | null>(null);
    let typed = $state('');
    let busy = $state(false);
    /** Fields whose value is taken over from the other. */
    let taken = $state<Record<string, boolean>>({});
    const likely = createQuery(() => ({
        queryKey: ['find', record.title],
        queryFn: () => ask(api.GET('/api/find', { params: { query: { text: record.title } } })),
    }));
    const alike = $derived((likely.data?.records ?? []).filter((one) => one.type === type.name && one.id !== record.id).slice(0, 4));
    const found = createQuery(() => ({
        queryKey: ['offer', type.name, typed],
        enabled: choosing !== null,
        queryFn: () => findRecords(type.name, typed),
    }));
    const theirs = createQuery(() => ({
        queryKey: ['record', type.name, other],
        enabled: other !== null,
        queryFn: () => ask(api.GET('/api/records/{type}/{id}', { params: { path: { type: type.name, id: other ?? 0 } } })),
    }));
    const differing = $derived(
        theirs.data
            ? type.fields.filter(
                  (field) => isChangeable(field) && (theirs.data.values[field.name] ?? null) !== (record.values[field.name] ?? null),
              )
            : [],
    );
    const isEmpty = (value: unknown) => value === null || value === undefined || value === '' || value === false;
    $effect(() => {
        if (theirs.data) taken = Object.fromEntries(differing.map((field) => [field.name, isEmpty(record.values[field.name])]));
    });

    async function merge() {
        const gone = theirs.data;
        if (!gone) return toasts.complain('Say first which record is the same.');
        busy = true;
        const values = Object.fromEntries(
            differing.filter((field) => taken[field.name]).map((field) => [field.name, gone.values[field.name] ?? null]),
        );
        try {
            await ask(
                api.POST('/api/records/{type}/{id}/merge', {
                    params: { path: { type: type.name, id: record.id } },
                    body: { version: record.version, other: gone.id, otherVersion: gone.version, values },
                }),
            );
            toasts.tell(`${gone.number} is one with ${record.number} now. It lies in the bin.`);
            onclose();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
        void client.invalidateQueries();
    }
</script>

<Confirm title="Which record is the same as {record.number}?" go="Merge" wide {busy} onconfirm={merge} {onclose}>
    <div class="flex flex-wrap items-center gap-2">
        <button type="button" class="boxed w-72 text-left" aria-haspopup="dialog" onclick={(event) => (choosing = event.currentTarget)}
            >{#if theirs.data}<span class="figures mini">{theirs.data.number}</span> {theirs.data.title}{:else}<span class="text-ink-3"
                    >Choose a {within(type.label)}…</span
                >{/if}</button
        >
        {#if alike.length && !other}
            <span class="mini">Called much the same:</span>
            {#each alike as one (one.id)}<button type="button" class="chip" onclick={() => (other = one.id)}
                    >{one.number} {one.title}</button
                >{/each}
        {/if}
    </div>
    {#if theirs.data}
        <p>
            What names {theirs.data.number} names {record.number} from now on. Comments, files, followers and open tasks move, and
            {theirs.data.number} goes to the bin.
        </p>
        {#if differing.length}
            <table class="w-full text-[13px] text-ink">
                <caption class="sr-only">Where they differ</caption>
                <thead>
                    <tr class="mini border-b border-ruled text-left">
                        <th class="py-1.5 pr-4 font-normal whitespace-nowrap" scope="col">Where they differ</th>
                        <th class="py-1.5 font-normal" scope="col">{record.number} stays</th>
                        <th class="py-1.5 font-normal" scope="col">{theirs.data.number} goes</th>
                    </tr>
                </thead>
                <tbody>
                    {#each differing as field (field.name)}
                        <tr class="border-b border-ruled">
                            <th class="py-1.5 pr-3 text-left font-normal text-ink-2" scope="row">{field.label}</th>
                            {#each [record, theirs.data] as one, index (index)}
                                <td class="py-1.5 pr-3">
                                    <label class="flex items-center gap-2">
                                        <Radio
                                            name="merge-{field.name}"
                                            value={index === 1}
                                            bind:group={taken[field.name]}
                                            aria-label="{field.label} of {one.number}"
                                        />
                                        <span class="min-w-0 truncate"><Shown record={one} {field} /></span>
                                    </label>
                                </td>
                            {/each}
                        </tr>
                    {/each}
                </tbody>
            </table>
        {:else}<p>They say the same in every field.</p>{/if}
    {/if}
</Confirm>

{#if choosing}
    <Floating anchor={choosing} label="The other {within(type.label)}" onclose={() => (choosing = null)}>
        <Choose
            title="The other {within(type.label)}"
            options={(found.data ?? [])
                .filter((one) => one.id !== record.id)
                .map((one) => ({ key: String(one.id), label: one.title, hint: one.number }))}
            chosen={[]}
            onsearch={(text) => (typed = text)}
            onchoose={([key]) => ([other, choosing] = [Number(key), null])}
            onclose={() => (choosing = null)}
        />
    </Floating>
{/if}
