<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import Stamp from '../../parts/Stamp.svelte';
    import SetAside from '../timing/SetAside.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { say, within } from '../../state/words';
    import Tabs from '../../parts/Tabs.svelte';
    import { KINDS } from '../types/fields';

    crumbs.set({ label: 'Setup' });
    const client = useQueryClient();
    const company = createQuery(() => ({ queryKey: ['company'], queryFn: () => ask(api.GET('/api/company')), refetchInterval: 5000 }));
    let shownType = $state(session.schema?.types[0]?.name ?? '');

    async function setFallback(event: Event & { currentTarget: HTMLSelectElement }) {
        const id = event.currentTarget.value === '' ? null : Number(event.currentTarget.value);
        try {
            client.setQueryData(['company'], await ask(api.PATCH('/api/company', { body: { fallbackPersonId: id } })));
            toasts.tell('Saved.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<div class="spread grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
    <section class="leaf left">
        <header>
            <h1>Setup</h1>
            <p class="sub">{company.data ? `${company.data.name}, ${company.data.timeZone}` : ''}</p>
        </header>
        <div class="scroll px-7 py-4">
            <div class="mb-6 grid grid-cols-2 gap-3">
                <a class="card" href="/setup/letters"><b>Letters</b><span>Messages that rules send, kept once and by version.</span></a>
                <a class="card" href="/setup/calendars"
                    ><b>Working calendars</b><span>Hours, holidays and zones of company, teams and people.</span></a
                >
                <a class="card" href="/setup/ladders"><b>Ladders</b><span>Who is told when work stays undone, rung by rung.</span></a>
                <a class="card" href="/setup/conditions"><b>Named conditions</b><span>Audiences that several rules share.</span></a>
                <a class="card" href="/setup/routes"><b>Routes of sign-offs</b><span>Who has to agree, step after step.</span></a>
                <a class="card" href="/setup/slips"
                    ><b>Reply slips</b><span>What people are asked on a page of their own, also outside.</span></a
                >
                {#if session.has('keep_house')}
                    <a class="card" href="/setup/types"><b>Records and fields</b><span>What is kept, and what each record says.</span></a>
                    <a class="card" href="/setup/systems"
                        ><b>Other systems</b><span>Where rules hand data over; calls that failed wait here.</span></a
                    >
                    <a class="card" href="/setup/hooks"><b>Hooks</b><span>Where other systems post what becomes a record.</span></a>
                    <a class="card" href="/setup/carry"
                        ><b>Export and import</b><span>All that is set up, as files: exported, compared, imported.</span></a
                    >
                    <a class="card" href="/setup/in-step"
                        ><b>Compare with accounting</b><span>Our customers beside those of accounting.</span></a
                    >
                {/if}
                <a class="card" href="/setup/api"
                    ><b>Interface for programs</b><span>All that can be asked from outside, to read and to try.</span></a
                >
                <a class="card" href="/setup/people"><b>People</b><span>Invitations, managers, deputies and absences.</span></a>
                <a class="card" href="/setup/roles"><b>Roles</b><span>What everybody may see and do, and why.</span></a>
            </div>
            <h2>When a rule finds nobody</h2>
            <p class="mt-1 mb-2 text-[13px] text-ink-2">
                A task whose person cannot be found goes to somebody who stands in, and the entry says so.
            </p>
            <Select
                placeholder=""
                class="max-w-xs"
                aria-label="Who stands in"
                value={company.data?.fallbackPersonId ?? ''}
                disabled={!session.has('keep_house')}
                onchange={setFallback}
            >
                <option value="">nobody</option>
                {#each session.people.filter((person) => person.active) as person (person.id)}<option value={person.id}
                        >{person.name}, {person.team}</option
                    >{/each}
            </Select>

            <h2 class="mt-7">Processes</h2>
            <p class="mt-1 mb-2 text-[13px] text-ink-2">
                Workers put into ink what falls due, each in a lane of its own; the clock keeps the house in order.
            </p>
            {#each company.data?.processes ?? [] as process (process.name)}
                <div class="flex items-center gap-3 border-b border-ruled py-1.5 text-[13px]">
                    <span class="w-20 font-semibold">{process.kind}</span>
                    <span class="figures mini min-w-0 flex-1 truncate">{process.name}, since {moment(process.startedAt)}</span>
                    <span class="figures mini">{process.done} done</span>
                    <Stamp tone={process.alive ? 'fern' : 'madder'}>{process.alive ? 'at work' : say('silent')}</Stamp>
                </div>
            {:else}
                <p class="callout bad">No worker has been heard of. Nothing that falls due is put into ink until one runs.</p>
            {/each}

            <SetAside />
        </div>
    </section>
    <section class="leaf right">
        <Tabs
            tabs={(session.schema?.types ?? []).map((one) => ({ key: one.name, label: one.plural }))}
            chosen={shownType}
            onchoose={(name) => (shownType = name)}
            label="Records and fields"
            panel="flex min-h-0 flex-1 flex-col"
        >
            {#snippet children(name)}
                <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
                <div class="scroll px-6 py-4" role="region" aria-label="Fields" tabindex="0">
                    {#each session.type(name).fields as field (field.name)}
                        <div class="grid grid-cols-[1fr_110px_1.4fr] gap-3 border-b border-ruled py-1.5 text-[13px]">
                            <span class="font-medium"
                                >{field.label}{#if field.required}<span class="text-madder">&nbsp;*</span>{/if}</span
                            >
                            <span class="text-ink-2">{within(KINDS[field.type]?.label ?? '')}</span>
                            <span class="mini">
                                {field.target
                                    ? `to ${within(session.type(field.target).plural)}`
                                    : field.choices.map((choice) => choice.label).join(', ') ||
                                      field.formula ||
                                      (field.system ? 'kept by the application' : '')}
                            </span>
                        </div>
                    {/each}
                </div>
            {/snippet}
        </Tabs>
    </section>
</div>
