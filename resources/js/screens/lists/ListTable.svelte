<script lang="ts">
    import { Checkbox } from 'flowbite-svelte';
    import type { Resources } from '../../api/client';
    import Shown from '../../parts/Shown.svelte';
    import { day, dueDate, lasted, moment } from '../../state/moments';
    import { clock } from '../../state/session.svelte';
    import { isChangeable } from '../../state/changeable';
    import type { Arrangement } from './arrangement.svelte';
    import type { Selection } from './selection.svelte';

    type Row = Resources['RecordResource'];
    type Column = Resources['ColumnResource'];
    type Props = {
        type: Resources['TypeResource'];
        rows: Row[];
        columns: Column[];
        arrangement: Arrangement;
        selection: Selection;
        /** The row under the cursor. */
        at: number;
        head?: boolean;
        /** Whether its columns stand like those of other tables, whatever is in them. */
        steady?: boolean;
        onat: (index: number) => void;
        onedit: (row: Row, field: Resources['FieldResource'], anchor: HTMLElement) => void;
    };
    let { type, rows, columns, arrangement, selection, at, head = true, steady = false, onat, onedit }: Props = $props();

    const picks = $derived(
        Math.max(
            0,
            columns.findIndex((column) => column.of === 'number'),
        ),
    );
    const allPicked = $derived(rows.length > 0 && rows.every((row) => selection.has(row.id)));
    const link = (row: Row) => `/records/${type.name}/${row.id}`;
    const isOwn = (column: Column) => column.field !== null && !column.of.includes('.');
    const mayEdit = (row: Row, column: Column) =>
        isOwn(column) && row.may.includes('change') && column.field !== null && isChangeable(column.field);
    const closes = $derived(
        new Set(
            type.fields
                .find((field) => field.name === type.stage)
                ?.choices.filter((choice) => choice.closes || choice.value === 'closed')
                .map((choice) => choice.value),
        ),
    );
    const isClosed = (row: Row) => type.stage !== null && closes.has(String(row.values[type.stage]));

    const sorted = (name: string) => arrangement.sort.find((one) => one.replace(/^-/, '') === name);
    function arrow(name: string): string {
        const place = arrangement.sort.indexOf(sorted(name) ?? '');
        if (place < 0) return '';
        const nth = arrangement.sort.length > 1 ? String(place + 1) : '';
        return ` ${arrangement.sort[place]?.startsWith('-') ? '↓' : '↑'}${nth}`;
    }
    const ariaSort = (name: string): 'ascending' | 'descending' | 'none' =>
        sorted(name) === undefined ? 'none' : sorted(name)?.startsWith('-') ? 'descending' : 'ascending';

    /** At most so many letters of a column are shown whole. */
    const letters: Record<string, number> = { date: 7, person: 14, reference: 16, text: 16, choice: 14, choices: 16, tags: 16 };
    const FIXED: Record<string, number> = { number: 112, '@since': 98, '@next': 190 };
    let dragged = $state<{ of: string; width: number } | null>(null);
    /** What a column needs for the rows that are shown; the one that names the record takes what is left. */
    function width(column: Column, index: number): string | undefined {
        if (dragged?.of === column.of) return `${dragged.width}px`;
        if (column.width) return `${column.width}px`;
        if (column.of === type.title) return undefined;
        if (FIXED[column.of]) return `${(FIXED[column.of] ?? 0) + (index === 0 ? 14 : 0)}px`;
        const most = letters[column.field?.type ?? ''] ?? 16;
        const longest = steady ? most : Math.max(column.label.length + 2, ...rows.map((row) => (row.shown[column.of] ?? '').length));
        return `${Math.round(Math.min(longest, most) * 6.5) + (index === 0 ? 30 : 20)}px`;
    }

    /** The column that names the record takes what is left, and is never squeezed out: rather the list is wider than its leaf. */
    const LEAST_TITLE = 150;
    const least = $derived(
        columns.reduce(
            (sum, column, index) => sum + (column.of === type.title && !column.width ? LEAST_TITLE : parseInt(width(column, index) ?? '0')),
            0,
        ),
    );

    function resize(event: PointerEvent, column: Column) {
        event.preventDefault();
        const start = (event.currentTarget as HTMLElement).closest('th')?.offsetWidth ?? 100;
        const move = (now: PointerEvent) =>
            (dragged = { of: column.of, width: Math.min(900, Math.max(48, start + now.clientX - event.clientX)) });
        const up = () => {
            window.removeEventListener('pointermove', move);
            if (dragged) widen(dragged.of, dragged.width);
            dragged = null;
        };
        window.addEventListener('pointermove', move);
        window.addEventListener('pointerup', up, { once: true });
    }

    function widen(of: string, wide: number) {
        const written = columns.map((one) => (one.of === of ? `${of}:${Math.round(wide)}` : one.of + (one.width ? `:${one.width}` : '')));
        arrangement.set('columns', written.join(','));
    }
    const since = (row: Row) => (row.stageSince ? lasted((clock.now.getTime() - Date.parse(row.stageSince)) / 1000) : '');
</script>

<table class="ledger cards" style:min-width="{least}px">
    {#if head}
        <thead>
            <tr>
                {#each columns as column, index (`${column.of} ${index}`)}
                    <th class={index === 0 ? 'first' : ''} style:width={width(column, index)} aria-sort={ariaSort(column.of)}>
                        {#if index === picks}<Checkbox
                                class="mr-2 inline-block align-[-3px]"
                                aria-label="Choose all on this page"
                                checked={allPicked}
                                onchange={() => selection.togglePage(rows)}
                            />{/if}{#if column.sortable}<button
                                type="button"
                                title="Sort by it; with Shift, by it as well"
                                onclick={(event) => arrangement.sortBy(column.of, event.shiftKey)}>{column.label}{arrow(column.of)}</button
                            >{:else}{column.label}{/if}
                        <!-- svelte-ignore a11y_no_static_element_interactions -->
                        <span class="grip" onpointerdown={(event) => resize(event, column)} ondblclick={() => widen(column.of, 0)}></span>
                    </th>
                {/each}
            </tr>
        </thead>
    {:else}
        <colgroup
            >{#each columns as column, index (`${column.of} ${index}`)}<col style:width={width(column, index)} />{/each}</colgroup
        >
    {/if}
    <tbody>
        {#each rows as row, index (row.id)}
            <svelte:boundary>
                <tr class:on={index === at} data-index={index} aria-selected={index === at} onclick={() => onat(index)}>
                    {#each columns as column, place (`${column.of} ${place}`)}
                        <td
                            class={place === 0
                                ? 'first'
                                : column.of === 'number' || column.of.startsWith('@')
                                  ? 'figures text-[11.5px]'
                                  : ''}
                            class:mayedit={mayEdit(row, column)}
                            title={row.shown[column.of]}
                            data-of={column.of === type.title ? 'title' : column.of}
                            ondblclick={(event) => {
                                if (column.field && mayEdit(row, column)) onedit(row, column.field, event.currentTarget);
                            }}
                        >
                            {#if place === picks}<Checkbox
                                    class="mr-2 inline-block align-[-3px]"
                                    aria-label="Choose {row.number}"
                                    checked={selection.has(row.id)}
                                    onclick={(event) => event.stopPropagation()}
                                    onchange={() => selection.toggle(row)}
                                />{/if}{#if column.of === 'number'}<a class="hover:text-iris" href={link(row)}>{row.number}</a
                                >{:else if column.of === '@since'}<span class="text-ink-2">{since(row)}</span
                                >{:else if column.of === '@next'}{#if row.values['@next']}<span class="pencil"
                                        >{row.shown['@next']} {moment(String(row.values['@next']))}</span
                                    >{/if}{:else if column.of === type.title}<a class="font-medium hover:text-iris" href={link(row)}
                                    >{row.title}</a
                                >{:else if place === 0 && column.field?.type === 'date'}
                                {@const due = row.values[column.of] ? dueDate(String(row.values[column.of])) : null}
                                <span class={isClosed(row) ? '' : `tone-${due?.tone}`}
                                    >{due ? (isClosed(row) ? day(String(row.values[column.of])) : due.text) : ''}</span
                                >
                            {:else if column.field}<Shown record={row} field={column.field} of={column.of} plain />{/if}
                        </td>
                    {/each}
                </tr>
                {#snippet failed()}<tr
                        ><td class="first" colspan={columns.length}
                            ><a class="text-madder" href={link(row)}>{row.number} could not be shown here.</a></td
                        ></tr
                    >{/snippet}
            </svelte:boundary>
        {/each}
    </tbody>
</table>
