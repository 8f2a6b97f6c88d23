<script lang="ts">
    import { Checkbox, Input, Select } from 'flowbite-svelte';
    import type { AnyDocument } from '../../state/document.svelte';
    import { put, type JsonObject } from '../../state/pointer';
    import { localDay } from '../../state/moments';
    import { clock } from '../../state/session.svelte';
    import TimeOfDay from './TimeOfDay.svelte';
    import { rruleOf, timetableOf, WEEKDAYS } from './timetable';
    import DateField from '../fields/DateField.svelte';
    import { say } from '../../state/words';

    /* A recurrence rule, put together from a few words. */
    type Props = { document: AnyDocument; at: string; onclose: () => void };
    let { document: page, at, onclose }: Props = $props();
    // svelte-ignore state_referenced_locally
    const given = (page.at(at) ?? {}) as JsonObject;
    let table = $state(timetableOf(String(given.rrule ?? 'FREQ=DAILY')));
    let time = $state(String(given.time ?? '08:00'));
    let from = $state(String(given.from ?? localDay(clock.now)));
    let workingDays = $state(given.workingDays === true);
    const NTHS: [string, (day: string) => string][] = [
        ['1', (day) => `the first ${day}`],
        ['2', (day) => `the second ${day}`],
        ['3', (day) => `the third ${day}`],
        ['-1', (day) => `the last ${day}`],
    ];
    const units = { DAILY: say('days'), WEEKLY: say('weeks'), MONTHLY: say('months'), YEARLY: say('years') };

    function toggle(day: string) {
        table.days = WEEKDAYS.map(([key]) => key).filter((key) => (key === day ? !table.days.includes(key) : table.days.includes(key)));
    }

    /** What it shows is what stands there afterwards, also where nobody has altered it. */
    function done(event: SubmitEvent) {
        event.preventDefault();
        const parts = (rrule: string) => rrule.toUpperCase().split(';').sort().join(';');
        const [before, after] = [String(given.rrule ?? ''), rruleOf(table)];
        // In another order the parts say the same.
        const next: JsonObject = { ...given, rrule: parts(before) === parts(after) ? before : after, time, from };
        if (workingDays) next.workingDays = true;
        else delete next.workingDays;
        if (JSON.stringify(next) !== JSON.stringify(given)) void page.edit((file) => put(file, at, next));
        onclose();
    }
</script>

<form class="w-[400px]" onsubmit={done}>
    <div class="space-y-2 px-4 py-3 text-[12.5px] text-ink-2">
        <div class="flex items-center gap-2">
            <!-- svelte-ignore a11y_autofocus -->
            every <Input class="w-16!" type="number" min="1" max="60" aria-label="Interval" bind:value={table.interval} autofocus />
            <Select placeholder="" aria-label="Unit" bind:value={table.freq}>
                {#each Object.entries(units) as [key, label] (key)}<option value={key}>{label}</option>{/each}
            </Select>
            at
            <TimeOfDay bind:value={time} />
        </div>
        {#if table.freq === 'WEEKLY'}
            <div class="segments" role="group" aria-label="Weekdays">
                {#each WEEKDAYS as [key, label] (key)}<button
                        type="button"
                        aria-pressed={table.days.includes(key)}
                        onclick={() => toggle(key)}>{label}</button
                    >{/each}
            </div>
        {:else if table.freq === 'MONTHLY'}
            <div class="flex items-center gap-2">
                <span>on</span>
                <Select placeholder="" aria-label="Which day" bind:value={table.day}>
                    {#each Array.from({ length: 31 }, (_, index) => String(index + 1)) as number (number)}<option value={number}
                            >day {number}</option
                        >{/each}
                    <option value="-1">the last day</option>
                    {#each NTHS as [nth, the] (nth)}
                        {#each WEEKDAYS as [key, name] (key)}<option value="{nth}{key}">{the(name)}</option>{/each}
                    {/each}
                </Select>
            </div>
        {/if}
        <label class="flex items-center gap-2">from <DateField class="w-44" label="First day" bind:value={from} /></label>
        <label class="flex items-center gap-2"><Checkbox bind:checked={workingDays} />on working days only</label>
    </div>
    <div class="keys"><span><kbd>Enter</kbd>done</span><span><kbd>Esc</kbd>close</span><button class="link ml-auto">Done</button></div>
</form>
