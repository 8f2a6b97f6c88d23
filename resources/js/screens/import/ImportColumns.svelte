<script lang="ts">
    import { isChangeable } from '../../state/changeable';
    import { inFigures } from '../../state/numbers';
    import { Radio, Select } from 'flowbite-svelte';
    import { untrack } from 'svelte';
    import type { Refusal, Resources } from '../../api/client';

    /* Which column is for which field, and by what records are known that are there already. */
    type Mode = Resources['ImportResource']['mode'];
    type Props = {
        type: Resources['TypeResource'];
        file: Resources['ImportResource'];
        refusal: Refusal | null;
        problem: string;
        ontry: (mapping: Record<string, string>, key: string | null, mode: Mode) => void;
    };
    let { type, file, refusal, problem, ontry }: Props = $props();
    const fields = $derived(type.fields.filter(isChangeable));
    let mapping = $state<Record<string, string>>(
        untrack(() => Object.fromEntries(file.columns.map((column) => [column.place, column.field ?? '']))),
    );
    let key = $state(untrack(() => file.key ?? ''));
    let mode = $state<Mode>(untrack(() => file.mode));
    const taken = $derived(Object.values(mapping).filter(Boolean));
    const label = (name: string) => (name === 'number' ? 'No.' : (type.fields.find((field) => field.name === name)?.label ?? name));
    const mayChange = $derived(['draft', 'tried'].includes(file.job.status));
    const isTried = $derived(file.job.status === 'tried');
    $effect(() => {
        if (key && !taken.includes(key)) key = '';
    });

    function go() {
        ontry(Object.fromEntries(Object.entries(mapping).filter(([, name]) => name)), key || null, key ? mode : 'create');
    }
</script>

<div class="scroll">
    <table class="ledger">
        <thead><tr><th class="first w-[120px]">Column</th><th>What stands in it</th><th class="w-[210px]">Becomes</th></tr></thead>
        <tbody>
            {#each file.columns as column (column.place)}
                <tr class="cursor-default! {mapping[column.place] ? '' : 'text-ink-3'}">
                    <td class="first" title={column.head}>{column.head || `column ${column.place + 1}`}</td>
                    <td title={column.samples.join(' · ')}>{column.samples.filter(Boolean).join(' · ')}</td>
                    <td class="py-1!">
                        <Select
                            placeholder=""
                            disabled={!mayChange}
                            aria-label="What “{column.head}” becomes"
                            aria-invalid={refusal?.at(`/mapping/${column.place}`) ? true : undefined}
                            bind:value={mapping[column.place]}
                        >
                            <option value="">left out</option>
                            <option value="number" disabled={taken.includes('number') && mapping[column.place] !== 'number'}>No.</option>
                            {#each fields as field (field.name)}<option
                                    value={field.name}
                                    disabled={taken.includes(field.name) && mapping[column.place] !== field.name}
                                    >{field.label}{field.required ? ' *' : ''}</option
                                >{/each}
                        </Select>
                    </td>
                </tr>
            {/each}
        </tbody>
    </table>
    <div class="grid gap-2 px-7 py-4 text-[13px]">
        <label class="flex items-center gap-3"
            ><span class="w-40 text-ink-2">A record is known by</span>
            <Select placeholder="" class="w-72" disabled={!mayChange} bind:value={key}>
                <option value="">nothing: each row is a new one</option>
                {#each taken as name (name)}<option value={name}>{label(name)}</option>{/each}
            </Select></label
        >
        {#if key}
            <fieldset class="flex flex-wrap gap-x-5 gap-y-1 pl-43" disabled={!mayChange}>
                <legend class="sr-only">What rows may do</legend>
                <Radio name="mode" value="both" bind:group={mode}>change those that are there, make the others</Radio>
                <Radio name="mode" value="update" bind:group={mode}>change only</Radio>
                <Radio name="mode" value="create" bind:group={mode}>make only</Radio>
            </fieldset>
        {/if}
        {#if problem}<p class="callout bad" role="alert">{problem}</p>{/if}
    </div>
</div>
{#if mayChange}
    <div class="keys shrink-0">
        <button type="button" class="btn {isTried ? '' : 'go'}" disabled={taken.length === 0} onclick={go}
            >{isTried ? 'Try once more' : `Try all ${inFigures(file.job.total)} rows`}</button
        >
        <span class="my-auto">Nothing is saved by trying.</span>
    </div>
{/if}
