<script lang="ts">
    import { Checkbox, Input, Select } from 'flowbite-svelte';
    import { onMount, untrack } from 'svelte';
    import type { AnyDocument } from '../../state/document.svelte';
    import { put, type Json, type JsonObject } from '../../state/pointer';
    import type { Resources } from '../../api/client';
    import type { Editor } from '../words';
    import { besides, leaveOut } from './choices';
    import { takesFocus } from '../focus';
    import DueFields from './DueFields.svelte';
    import TimeOfDay from './TimeOfDay.svelte';
    import { chosenOption, filled, filledIn, sidesOf, wayOf } from './form';

    type Props = {
        document: AnyDocument;
        editor: Editor;
        at: string;
        ways: Resources['WayResource'][];
        onclose: () => void;
        onother: () => void;
    };
    let { document: page, editor, at, ways, onclose, onother }: Props = $props();
    const given = untrack(() => (page.at(at) ?? null) as JsonObject | null);
    let index = $state(untrack(() => wayOf(ways, given)));
    const way = $derived(ways[index]);
    let values = $state(untrack(() => filledIn(ways, given, index)));
    let form = $state<HTMLFormElement>();
    onMount(() => {
        const first = form?.querySelector<HTMLElement>('select, input');
        if (first) takesFocus(first);
    });

    /** What the form says; where that is what it said when it was opened, nothing is written. */
    const said = () => JSON.stringify([index, way && filled(way, values[index] ?? {}, given)]);
    const before = untrack(said);

    function done(event: SubmitEvent) {
        event.preventDefault();
        if (!way || (said() === before && given !== null)) return onclose();
        const row = values[index] ?? {};
        void page.edit((file) => {
            if (way.with === null) return leaveOut(file, at, editor.clears);
            put(file, at, filled(way, row, given));
            for (const field of way.fields) {
                const option = chosenOption(field, row[field.key]);
                if (option) besides(file, option);
            }
        });
        onclose();
    }

    function remove() {
        void page.edit((file) => leaveOut(file, at, editor.clears));
        onclose();
    }
</script>

<form class="w-[400px]" bind:this={form} onsubmit={done}>
    <div class="space-y-2 px-4 py-3 text-[12.5px] text-ink-2">
        {#if editor.hint}<p>{editor.hint}</p>{/if}
        {#if ways.length > 1}
            <Select placeholder="" aria-label={editor.label} bind:value={index}>
                {#each ways as one, place (one.label)}<option value={place}>{one.label}</option>{/each}
            </Select>
        {/if}
        {#each way?.fields ?? [] as field (field.key + field.sort)}
            {@const row = values[index]!}
            {#if field.sort === 'time'}
                {#if !field.isNeeded}
                    <label class="flex items-center gap-2"
                        ><Checkbox
                            checked={row[field.key] !== null}
                            onchange={(event) => (row[field.key] = event.currentTarget.checked ? (field.starts as Json) : null)}
                        />{field.label}</label
                    >
                {:else if field.label}<p>{field.label}</p>{/if}
                {#if row[field.key] !== null}
                    <DueFields
                        bind:due={row[field.key] as JsonObject}
                        sides={sidesOf(field, row)}
                        least={field.least ?? 0}
                        clocks={field.hasClock}
                        rolls={field.hasTime}
                        units={field.units}
                        focus={false}
                    />
                {/if}
            {:else if field.sort === 'number'}
                <div class="flex items-center gap-2">
                    {#if field.isNeeded}{field.label}
                    {:else}
                        <label class="flex items-center gap-2"
                            ><Checkbox
                                checked={row[field.key] !== null}
                                onchange={(event) => (row[field.key] = event.currentTarget.checked ? (field.starts as Json) : null)}
                            />{field.label}</label
                        >
                    {/if}
                    {#if row[field.key] !== null}
                        <Input
                            class="w-20!"
                            type="number"
                            min={field.least}
                            max={field.most}
                            aria-label={(field.behind || field.label).charAt(0).toUpperCase() + (field.behind || field.label).slice(1)}
                            bind:value={row[field.key] as number}
                        />
                        {field.behind}
                    {/if}
                </div>
            {:else if field.sort === 'choice'}
                <label class="flex items-center gap-2"
                    >{#if field.label}<span class="shrink-0">{field.label}</span>{/if}
                    <Select placeholder="" class="min-w-0" aria-label={field.label || field.key} bind:value={row[field.key]}>
                        {#each field.options as option (option.label)}<option value={option.value ?? null}>{option.label}</option>{/each}
                    </Select></label
                >
            {:else if field.sort === 'tick'}
                <label class="flex items-center gap-2"><Checkbox bind:checked={row[field.key] as boolean} />{field.label}</label>
            {:else}
                <label class="flex items-center gap-2"
                    ><span class="w-10 shrink-0">{field.label}</span>
                    <TimeOfDay
                        label={field.label.charAt(0).toUpperCase() + field.label.slice(1)}
                        bind:value={row[field.key] as string}
                    /></label
                >
            {/if}
        {/each}
    </div>
    <div class="keys">
        <span><kbd>Enter</kbd>done</span><span><kbd>Esc</kbd>close</span>
        <span class="ml-auto flex gap-3">
            {#if editor.others}<button type="button" class="link" onclick={onother}>Or…</button>{/if}
            {#if editor.none && given !== null}<button type="button" class="link" onclick={remove}>{editor.none}</button>{/if}
            <button class="link">Done</button>
        </span>
    </div>
</form>
