<script lang="ts">
    import { Checkbox, Input } from 'flowbite-svelte';
    import type { Resources } from '../../api/client';
    import { fieldOptions } from '../../parts/offers';
    import type { Option } from '../../parts/options';

    /* Which columns a list has, and in which order. */
    type Props = { type: Resources['TypeResource']; columns: Resources['ColumnResource'][]; onchange: (columns: string[]) => void };
    let { type, columns, onchange }: Props = $props();

    const written = $derived(columns.map((column) => column.of + (column.width ? `:${column.width}` : '')));
    const stage = $derived(type.fields.find((field) => field.name === type.stage));
    const options = $derived.by((): Option[] => [
        { key: 'number', label: 'No.', group: type.label },
        ...(stage ? [{ key: '@since', label: `${stage.label} since`, group: type.label }] : []),
        { key: '@next', label: 'Next line', group: type.label },
        ...fieldOptions(type.name),
    ]);
    let typed = $state('');
    const offered = $derived.by(() => {
        const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
        return options.filter(
            (option) =>
                !columns.some((column) => column.of === option.key) &&
                words.every((word) => `${option.group ?? ''} ${option.label}`.toLowerCase().includes(word)),
        );
    });

    function move(index: number, by: number) {
        const next = [...written];
        const [one] = next.splice(index, 1);
        if (one && index + by >= 0 && index + by <= next.length) next.splice(index + by, 0, one);
        else return;
        onchange(next);
    }
    const remove = (index: number) => written.length > 1 && onchange(written.filter((_, place) => place !== index));
    let lifted = $state<number | null>(null);
</script>

<div class="w-[340px]">
    <div class="max-h-[240px] overflow-auto px-4 py-2" role="list" aria-label="Columns that are shown">
        {#each columns as column, index (column.of)}
            <div
                class="flex items-center gap-2 py-0.5 text-[13px] {lifted === index ? 'lifted' : ''}"
                role="listitem"
                draggable="true"
                ondragstart={() => (lifted = index)}
                ondragend={() => (lifted = null)}
                ondragover={(event) => event.preventDefault()}
                ondrop={(event) => {
                    event.preventDefault();
                    if (lifted !== null) move(lifted, index - lifted);
                    lifted = null;
                }}
            >
                <Checkbox checked aria-label="Show {column.label}" disabled={columns.length === 1} onchange={() => remove(index)} />
                <span class="min-w-0 flex-1 truncate">{column.label}</span>
                <button
                    type="button"
                    class="icon"
                    aria-label="{column.label} further left"
                    disabled={index === 0}
                    onclick={() => move(index, -1)}>↑</button
                >
                <button
                    type="button"
                    class="icon"
                    aria-label="{column.label} further right"
                    disabled={index === columns.length - 1}
                    onclick={() => move(index, 1)}>↓</button
                >
            </div>
        {/each}
    </div>
    <div class="border-t border-ruled px-4 py-2">
        <Input placeholder="Add a column: type to filter" aria-label="Add a column" bind:value={typed} />
    </div>
    <div class="max-h-[190px] overflow-auto pb-1" role="list" aria-label="Columns that can be added">
        {#each offered.slice(0, 80) as option, index (option.key)}
            {#if option.group !== offered[index - 1]?.group}<div class="px-4 pt-1.5 text-[11px] font-semibold text-ink-3">
                    {option.group}
                </div>{/if}
            <div role="listitem">
                <button type="button" class="option hover:bg-iris-wash" onclick={() => onchange([...written, option.key])}
                    >{option.label}<span class="hint">add</span></button
                >
            </div>
        {:else}<p class="mini px-4 py-2">Nothing fits “{typed}”.</p>{/each}
    </div>
</div>
