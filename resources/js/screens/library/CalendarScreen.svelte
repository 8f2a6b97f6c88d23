<script lang="ts">
    import { day as dayOf } from '../../state/moments';
    import { Checkbox, Input, MultiSelect } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { X } from '@lucide/svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { Kept } from './kept.svelte';
    import KeptFrame from './KeptFrame.svelte';
    import DateField from '../../parts/fields/DateField.svelte';
    import FileButton from '../../parts/fields/FileButton.svelte';
    import { counted } from '../../state/words';

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Working calendars' });
    const client = useQueryClient();
    const calendars = createQuery(() => ({ queryKey: ['calendars'], queryFn: () => ask(api.GET('/api/calendars')) }));
    const WEEK = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
    const teams = $derived([...new Set(session.people.filter((person) => person.active).map((person) => person.team))].sort());
    const zones = Intl.supportedValuesOf('timeZone');
    type Edited = Omit<Resources['CalendarResource'], 'id' | 'hours' | 'holidays'> & {
        id: number | null;
        hours: Record<string, [string, string][]>;
        holidays: Record<string, string>;
    };
    const kept = new Kept<Edited>(client, 'calendars');
    let day = $state('');
    let name = $state('');

    const begin = () =>
        kept.open({
            id: null,
            version: 0,
            name: '',
            timeZone: session.me?.timeZone ?? 'UTC',
            hours: Object.fromEntries(['1', '2', '3', '4', '5'].map((key) => [key, [['09:00', '17:00']]])) as Edited['hours'],
            holidays: {},
            company: (calendars.data ?? []).length === 0,
            teams: [],
            people: [],
        });

    function open(calendar: Resources['CalendarResource']) {
        const edited = structuredClone($state.snapshot(calendar)) as unknown as Edited;
        // The API writes an empty object as a list.
        kept.open(Array.isArray(edited.holidays) ? { ...edited, holidays: {} } : edited);
    }

    async function keep() {
        const done = await kept.keep<unknown>(
            ({ id, ...body }) =>
                id === null
                    ? ask(api.POST('/api/calendars', { body: { ...body, version: null } }))
                    : ask(api.PUT('/api/calendars/{id}', { params: { path: { id } }, body })),
            (calendar) => `“${calendar.name}” is saved. What is reckoned from now on goes by it.`,
        );
        if (done) void client.invalidateQueries({ queryKey: ['today'] });
    }

    async function importDays(file: File) {
        const editing = kept.editing;
        if (!editing) return;
        try {
            const read = await ask(api.POST('/api/calendars/holidays', { body: { text: await file.text() } }));
            const days = read.holidays as Record<string, string>;
            editing.holidays = { ...editing.holidays, ...days };
            toasts.tell(
                `${file.name}: ${counted(Object.keys(days).length, ['# day read.', '# days read.'])} Keep the calendar to make them count.`,
            );
            // What the file has besides.
            if (read.said.length) toasts.complain(read.said.join(' '));
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    function spans(key: string, change: (spans: [string, string][]) => [string, string][]) {
        const editing = kept.editing;
        if (!editing) return;
        const next = change(editing.hours[key] ?? []);
        const hours = { ...editing.hours };
        if (next.length) hours[key] = next;
        else delete hours[key];
        editing.hours = hours;
    }
    const goesBy = (calendar: Resources['CalendarResource']) =>
        [
            calendar.company ? 'the company' : '',
            ...calendar.teams,
            ...calendar.people.map((id) => session.people.find((person) => person.id === id)?.name ?? ''),
        ]
            .filter(Boolean)
            .join(', ') || 'nobody yet';
</script>

<KeptFrame
    {kept}
    title="Working calendars"
    sub="When work is done: the company, its teams, its people."
    items={calendars.data}
    fresh="New calendar"
    onnew={begin}
    onopen={open}
    onkeep={() => void keep()}
    ondelete={() => void kept.delete((id) => ask(api.DELETE('/api/calendars/{id}', { params: { path: { id } } })))}
    none={['No calendar yet.', 'Until there is one, Monday to Friday from 09:00 to 17:00 counts as working time.']}
    idle={['Due dates, reminders and escalations go by these.', 'Choose a calendar to see its hours and holidays.']}
    loses="What was reckoned by it stays as it is."
>
    {#snippet row(calendar)}
        <b class="font-semibold">{calendar.name}</b> <span class="mini">{calendar.timeZone}</span>
        <span class="mini block">{goesBy(calendar)} · {counted(Object.keys(calendar.holidays).length, ['# holiday', '# holidays'])}</span>
    {/snippet}
    {#snippet besides(edited)}
        <Input
            class="max-w-48"
            aria-label="Time zone"
            list="zones"
            bind:value={edited.timeZone}
            aria-invalid={kept.problem('/timeZone') ? true : undefined}
        />
        <datalist id="zones"
            >{#each zones as zone (zone)}<option value={zone}></option>{/each}</datalist
        >
    {/snippet}
    {#snippet editor(edited)}
        <h2>Hours</h2>
        {#each WEEK as label, index (label)}
            {@const key = String(index + 1)}
            <div class="flex min-h-10 items-center gap-2 border-b border-ruled py-1">
                <span class="w-24 {edited.hours[key] ? 'font-medium' : 'text-ink-3'}">{label}</span>
                {#each edited.hours[key] ?? [] as span, at (at)}
                    <Input
                        class="figures w-20! py-0.5"
                        type="text"
                        inputmode="numeric"
                        placeholder="09:00"
                        maxlength={5}
                        pattern="([01][0-9]|2[0-3]):[0-5][0-9]|24:00"
                        aria-label="{label} from"
                        value={span[0]}
                        onchange={(event) =>
                            spans(key, (all) => all.map((one, other) => (other === at ? [event.currentTarget.value, one[1]] : one)))}
                    />
                    –
                    <Input
                        class="figures w-20! py-0.5"
                        type="text"
                        inputmode="numeric"
                        placeholder="09:00"
                        maxlength={5}
                        pattern="([01][0-9]|2[0-3]):[0-5][0-9]|24:00"
                        aria-label="{label} to"
                        value={span[1]}
                        onchange={(event) =>
                            spans(key, (all) => all.map((one, other) => (other === at ? [one[0], event.currentTarget.value] : one)))}
                    />
                    <button
                        type="button"
                        class="icon"
                        aria-label="Take away"
                        onclick={() => spans(key, (all) => all.filter((_, other) => other !== at))}><X size={13} /></button
                    >
                {:else}<span class="mini">no work</span>{/each}
                {#if (edited.hours[key]?.length ?? 0) < 3}<button
                        type="button"
                        class="link ml-auto text-[12.5px]"
                        onclick={() => spans(key, (all) => [...all, all.length ? ['17:30', '19:00'] : ['09:00', '17:00']])}>+ hours</button
                    >{/if}
            </div>
        {/each}
        <div class="mt-5 flex items-center gap-2">
            <h2>Holidays</h2>
            <FileButton says="Read an .ics file" accept=".ics,text/calendar" onchoose={importDays} />
        </div>
        <div class="mt-2 grid grid-cols-2 gap-x-6">
            {#each Object.entries(edited.holidays).sort() as [date, label] (date)}
                <div class="flex items-center gap-2 border-b border-ruled py-1">
                    <span class="w-24 shrink-0">{dayOf(date)}</span><span class="min-w-0 flex-1 truncate" title={label}>{label}</span>
                    <button
                        type="button"
                        class="icon"
                        aria-label="Take {dayOf(date)} away"
                        onclick={() =>
                            (edited.holidays = Object.fromEntries(Object.entries(edited.holidays).filter(([other]) => other !== date)))}
                        ><X size={13} /></button
                    >
                </div>
            {/each}
        </div>
        <div class="mt-2 flex gap-2">
            <DateField class="w-44" label="Holiday" bind:value={day} />
            <Input class="max-w-56" aria-label="Its name" placeholder="Its name" maxlength={120} bind:value={name} />
            <button
                type="button"
                class="btn"
                disabled={!day}
                onclick={() => {
                    edited.holidays = { ...edited.holidays, [day]: name };
                    day = '';
                    name = '';
                }}>Add</button
            >
        </div>
        <h2 class="mt-5">Who goes by it</h2>
        <label class="mt-2 flex items-center gap-2"
            ><Checkbox bind:checked={edited.company} />the company, and everybody without a calendar of their own</label
        >
        <div class="mt-2 grid grid-cols-3 gap-x-4 gap-y-1">
            {#each teams as team (team)}<label class="flex items-center gap-2"
                    ><Checkbox
                        checked={edited.teams.includes(team)}
                        onchange={() =>
                            (edited.teams = edited.teams.includes(team)
                                ? edited.teams.filter((other) => other !== team)
                                : [...edited.teams, team])}
                    />{team}</label
                >{/each}
        </div>
        <span class="mt-3 block text-ink-2" id="own">People of their own</span>
        <MultiSelect
            class="mt-1"
            aria-labelledby="own"
            placeholder="Nobody"
            items={session.people
                .filter((person) => person.active)
                .map((person) => ({ value: person.id, name: `${person.name}, ${person.team}` }))}
            bind:value={edited.people}
            {@attach (node: HTMLElement) => {
                // The library calls it a list of choices also while none of them is there.
                node.setAttribute('role', 'group');
            }}
        />
    {/snippet}
</KeptFrame>
