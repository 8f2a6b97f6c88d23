<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import type { Resources } from '../../api/client';
    import { inFigures } from '../../state/numbers';
    import { session } from '../../state/session.svelte';
    import { counted, say } from '../../state/words';

    /* What is wrong, told once for all rows alike; what a cell means is said once, for every row in which it stands. */
    type Props = {
        type: Resources['TypeResource'];
        file: Resources['ImportResource'];
        ontry: (values: Resources['ImportValueResource'][]) => void;
    };
    let { type, file, ontry }: Props = $props();
    const SKIP = '-';
    const mayTry = $derived(file.job.status === 'tried');
    let means = $state<Record<string, string>>({});
    const keyOf = (group: Resources['ImportGroupResource']) => `${group.field}|${group.cell}`;
    const said = $derived(file.groups.filter((group) => means[keyOf(group)]));
    const rowsSaid = $derived(said.reduce((sum, group) => sum + group.count, 0));

    /** What a cell of a field can mean: one of its choices, or somebody at work. */
    function offered(group: Resources['ImportGroupResource']): { value: string; name: string }[] {
        const field = type.fields.find((one) => one.name === group.field);
        if (!field || group.cell === null) return [];
        const names =
            field.type === 'choice'
                ? field.choices.filter((choice) => !choice.isRetired).map((choice) => choice.label)
                : field.type === 'person'
                  ? session.people.filter((person) => person.active).map((person) => person.name)
                  : [];
        if (!names.length) return [];
        return [
            { value: '', name: say('means…') },
            ...names.map((name) => ({ value: name, name })),
            ...(field.required ? [] : [{ value: SKIP, name: say('nothing: leave it empty') }]),
        ];
    }

    function again() {
        const more = said.map((group) => {
            const to = means[keyOf(group)] ?? '';
            return { field: group.field, from: group.cell ?? '', to: to === SKIP ? '' : to };
        });
        const kept = file.values.filter((one) => !more.some((other) => other.field === one.field && other.from.toLowerCase() === one.from));
        ontry([...kept, ...more]);
    }
    const label = (name: string) => type.fields.find((field) => field.name === name)?.label ?? name;
</script>

{#if file.values.length && mayTry}
    <p class="mb-2 text-ink-2">
        {#each file.values as one, index (index)}{index ? ', ' : ''}{label(one.field)}
            “{one.from}” means {one.to ? `“${one.to}”` : say('nothing')}{/each}.
        <button type="button" class="link" onclick={() => ontry([])}>Forget that</button>
    </p>
{/if}
{#each file.groups as group, index (index)}
    {@const offers = mayTry ? offered(group) : []}
    <div class="grid grid-cols-[52px_1fr_auto] items-baseline gap-3 border-b border-ruled py-1.5" data-problem={group.field}>
        <span class="figures text-right font-semibold">{inFigures(group.count)}</span>
        <span
            >{group.said}
            <span class="mini block"
                >{group.rows.length === 1 ? say('row') : say('rows')}
                {group.rows.join(', ')}{group.count > group.rows.length ? ' …' : ''}</span
            ></span
        >
        {#if offers.length}<Select
                placeholder=""
                class="w-44"
                size="sm"
                items={offers}
                aria-label="What “{group.cell}” means"
                bind:value={means[keyOf(group)]}
            />{/if}
    </div>
{/each}
{#if said.length}
    <div class="sticky bottom-0 flex items-center gap-3 border-t border-edge bg-page py-2.5">
        <button type="button" class="btn go" onclick={again}>Try once more</button>
        <span class="mini">{counted(rowsSaid, ['# row is mended by it', '# rows are mended by it'])}</span>
    </div>
{/if}
