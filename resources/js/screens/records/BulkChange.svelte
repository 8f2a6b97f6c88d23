<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Shapes } from '../../api/client';
    import Choose from '../../parts/Choose.svelte';
    import Confirm from '../../parts/Confirm.svelte';
    import FieldValue from '../../parts/FieldValue.svelte';
    import Floating from '../../parts/Floating.svelte';
    import { counted } from '../../state/moments';
    import type { Json } from '../../state/pointer';
    import { toasts } from '../../state/toasts.svelte';

    /* "Change…": one field of all chosen records, each saved as if alone, with its own rules and its own answer. */
    type Props = { type: Shapes['TypeShape']; records: { id: number; version: number }[]; ondone: () => void };
    let { type, records, ondone }: Props = $props();
    const AT_ONCE = 100;
    const UNDOABLE = 50;
    const client = useQueryClient();
    const fields = $derived(type.fields.filter((field) => !field.system && field.formula === null));
    let anchor = $state<HTMLElement | null>(null);
    let field = $state<Shapes['FieldShape'] | null>(null);
    let done = $state(0);
    let busy = $state(false);
    let refused = $state.raw<string[]>([]);

    /** As the API takes it: another record by its id, whose number a person reads. */
    function taken(values: Json[]): Json {
        if (field?.type === 'reference') return Number(String(values[0]).split('-').at(-1));
        return field && ['choices', 'tags'].includes(field.type) ? values : (values[0] ?? null);
    }

    async function change(values: Json[]) {
        const name = field?.name ?? '';
        const value = taken(values);
        anchor = field = null;
        busy = true;
        const entries: number[] = [];
        const told: string[] = [];
        try {
            for (done = 0; done < records.length; done += AT_ONCE) {
                const some = records.slice(done, done + AT_ONCE).map((record) => ({ ...record, values: { [name]: value } }));
                const results = await ask(
                    api.POST('/api/records/{type}/several', { params: { path: { type: type.name } }, body: { records: some } }),
                );
                for (const result of results) {
                    if (result.saved?.entry) entries.push(result.saved.entry);
                    if (result.problem) told.push(result.problem.problems[0]?.message ?? result.problem.title);
                }
            }
            const undo =
                entries.length > 0 && entries.length <= UNDOABLE ? { label: 'Undo', run: () => void takeBack(entries) } : undefined;
            toasts.tell(`${counted(entries.length, type.label.toLowerCase(), type.plural.toLowerCase())} changed.`, undo);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
        refused = told;
        await client.invalidateQueries();
        if (!told.length) ondone();
    }

    async function takeBack(entries: number[]) {
        try {
            await ask(api.POST('/api/reversals', { body: { entries, why: 'Changed together, and taken back' } }));
            toasts.tell('Taken back.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        void client.invalidateQueries();
    }
</script>

<button type="button" class="btn" disabled={busy} onclick={(event) => (anchor = anchor ? null : event.currentTarget)}
    >{busy ? `Changing… ${done} of ${records.length}` : 'Change…'}</button
>

{#if anchor}
    <Floating {anchor} label="Change the chosen records" onclose={() => (anchor = field = null)}>
        {#if field}
            <FieldValue
                type={type.name}
                {field}
                many={['choices', 'tags'].includes(field.type)}
                chosen={[]}
                onchoose={change}
                onclose={() => (anchor = field = null)}
            />
        {:else}
            <Choose
                title="Change"
                options={fields.map((one) => ({ key: one.name, label: one.label }))}
                onchoose={([key]) => (field = fields.find((one) => one.name === key) ?? null)}
                onclose={() => (anchor = null)}
            />
        {/if}
    </Floating>
{/if}
{#if refused.length}
    <Confirm
        title="{counted(refused.length, type.label.toLowerCase(), type.plural.toLowerCase())} not changed"
        go="Understood"
        onconfirm={() => ((refused = []), ondone())}
        onclose={() => ((refused = []), ondone())}
    >
        <ul class="list-disc pl-5">
            {#each [...new Set(refused)].slice(0, 6) as message (message)}
                <li>{message} <span class="mini">{counted(refused.filter((one) => one === message).length, 'time')}</span></li>
            {/each}
        </ul>
    </Confirm>
{/if}
