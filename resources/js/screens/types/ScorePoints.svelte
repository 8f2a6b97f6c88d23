<script lang="ts">
    import { Input, Select } from 'flowbite-svelte';
    import type { Resources } from '../../api/client';
    import { say } from '../../state/words';

    /* Points that add up: each row is a condition on a field and what it is worth; the formula is written from them. */
    let { fields, onchange }: { fields: Resources['FieldResource'][]; onchange: (formula: string) => void } = $props();
    const OPERATORS = { is: say('is'), is_not: 'is not', more: 'is more than', less: 'is less than', filled: 'is filled in' };
    const usable = $derived(
        fields.filter(
            (field) => !field.system && field.formula === null && !['person', 'reference', 'choices', 'tags'].includes(field.type),
        ),
    );
    let rows = $state([{ field: '', operator: 'is', value: '', points: '10' }]);

    const isOrdered = (type: string) => ['number', 'money', 'percent', 'date', 'date_time'].includes(type);
    const operators = (type: string) => Object.entries(OPERATORS).filter(([key]) => !['more', 'less'].includes(key) || isOrdered(type));

    function written(row: (typeof rows)[number]): string {
        const field = usable.find((one) => one.name === row.field);
        const points = Number(row.points);
        if (!field || !Number.isFinite(points)) return '';
        if (row.operator === 'filled') return `(empty(${field.name}) ? 0 : ${points})`;
        if (row.value.trim() === '' && field.type !== 'tick') return '';
        const value = ['number', 'money', 'percent'].includes(field.type)
            ? row.value.trim()
            : field.type === 'tick'
              ? 'true'
              : `"${row.value.trim().replaceAll('"', '')}"`;
        const sign = { is: '==', is_not: '!=', more: '>', less: '<' }[row.operator] ?? '==';
        return `(${field.name} ${sign} ${value} ? ${points} : 0)`;
    }

    $effect(() => {
        const formula = rows.map(written).filter(Boolean).join(' + ');
        if (formula) onchange(formula);
    });
</script>

<div class="grid gap-1.5" role="group" aria-label="Points">
    {#each rows as row, index (index)}
        {@const field = usable.find((one) => one.name === row.field)}
        <div class="grid grid-cols-[1.3fr_1fr_1.2fr_64px] gap-1.5">
            <Select placeholder="" class="font-normal" aria-label="Field {index + 1}" bind:value={row.field}>
                <option value="">when…</option>
                {#each usable as one (one.name)}<option value={one.name}>{one.label}</option>{/each}
            </Select>
            <Select placeholder="" class="font-normal" aria-label="How it compares {index + 1}" bind:value={row.operator}>
                {#each operators(field?.type ?? '') as [key, words] (key)}
                    <option value={key}>{words}</option>
                {/each}
            </Select>
            {#if row.operator === 'filled'}<span></span>
            {:else if field?.type === 'choice'}
                <Select placeholder="" class="font-normal" aria-label="Value {index + 1}" bind:value={row.value}>
                    <option value=""></option>
                    {#each field.choices.filter((one) => !one.isRetired) as one (one.value)}<option value={one.label}>{one.label}</option
                        >{/each}
                </Select>
            {:else}<Input class="font-normal" aria-label="Value {index + 1}" bind:value={row.value} />{/if}
            <Input class="figures font-normal" inputmode="numeric" aria-label="Points {index + 1}" bind:value={row.points} />
        </div>
    {/each}
    <button
        type="button"
        class="link justify-self-start"
        onclick={() => (rows = [...rows, { field: '', operator: 'is', value: '', points: '10' }])}>+ more points</button
    >
</div>
