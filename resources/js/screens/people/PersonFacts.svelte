<script lang="ts">
    import { Input, Select } from 'flowbite-svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import { createQuery } from '@tanstack/svelte-query';
    import { toasts } from '../../state/toasts.svelte';
    import { glance } from '../access/roles';

    const FIELDS = [
        ['name', 'Name', 'text'],
        ['email', 'E-mail address', 'email'],
        ['team', 'Team', 'text'],
    ] as const;

    /* Who somebody is: what they are called, where they belong, what they may do. */
    let {
        person,
        roles,
        teams,
        onchange,
        oninvite,
    }: {
        person: Resources['PersonResource'];
        roles: Resources['RolesResource'] | null;
        teams: string[];
        onchange: (body: Record<string, unknown>) => void;
        oninvite: () => void;
    } = $props();
    const calendars = createQuery(() => ({ queryKey: ['calendars'], queryFn: () => ask(api.GET('/api/calendars')) }));
    let losing = $state(false);
    let password = $state('');
    let problem = $state('');

    async function signOut() {
        try {
            await ask(api.DELETE('/api/people/{id}/sign-ins', { params: { path: { id: person.id } } }));
            toasts.tell(`${person.name} is signed out everywhere.`);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    async function takeAway(event: SubmitEvent) {
        event.preventDefault();
        problem = '';
        try {
            const path = { id: person.id };
            await ask(api.DELETE('/api/people/{id}/second-factor', { params: { path }, body: { password } }));
            [losing, password] = [false, ''];
            onchange({});
        } catch (thrown) {
            problem = said(thrown);
        }
    }
</script>

{#if !person.hasJoined}
    <div class="callout mb-3 flex items-center gap-3">
        <span class="flex-1">{person.name} is invited and has not come in yet.</span>
        <button type="button" class="btn" onclick={oninvite}>Send it again</button>
    </div>
{/if}
{#if person.hasSecondFactor}
    <form class="callout mb-3 grid gap-2" onsubmit={takeAway}>
        <span>{person.name} signs in with a code as well.</span>
        {#if losing}
            <label class="grid gap-0.5 text-[12px]"
                >Your own password, to let them in without it
                <Input type="password" autocomplete="current-password" required bind:value={password} /></label
            >
            {#if problem}<span class="note-wrong" role="alert">{problem}</span>{/if}
            <span class="flex gap-2"
                ><button class="btn danger">Take the code away</button>
                <button type="button" class="btn quiet" onclick={() => (losing = false)}>Not now</button></span
            >
        {:else}<span><button type="button" class="link" onclick={() => (losing = true)}>They have lost it…</button></span>{/if}
    </form>
{/if}
<div class="mb-2 grid grid-cols-[130px_1fr] items-center gap-x-3 gap-y-2">
    {#each FIELDS as [member, label, type] (member)}
        <label for="person-{member}">{label}</label>
        <Input
            id="person-{member}"
            {type}
            list={member === 'team' ? 'known-teams' : undefined}
            value={person[member]}
            onchange={(event) => onchange({ [member]: event.currentTarget.value.trim() })}
        />
    {/each}
    <datalist id="known-teams"
        >{#each teams as team (team)}<option value={team}></option>{/each}</datalist
    >
    <label for="person-zone">Time zone</label>
    <Input
        id="person-zone"
        list="zones"
        value={person.timeZone}
        onchange={(event) => onchange({ timeZone: event.currentTarget.value.trim() })}
    />
    <datalist id="zones"
        >{#each Intl.supportedValuesOf('timeZone') as zone (zone)}<option value={zone}></option>{/each}</datalist
    >
    <label for="person-calendar">Calendar</label>
    <Select
        placeholder=""
        id="person-calendar"
        value={person.calendarId ?? ''}
        onchange={(event) => onchange({ calendarId: Number(event.currentTarget.value) || null })}
    >
        <option value="">that of the team or the company</option>
        {#each calendars.data ?? [] as calendar (calendar.id)}<option value={calendar.id}>{calendar.name}</option>{/each}
    </Select>
    <label for="person-role">Role</label>
    <Select placeholder="" id="person-role" value={person.role} onchange={(event) => onchange({ role: event.currentTarget.value })}>
        {#each roles?.roles ?? [] as role (role.name)}<option value={role.name}>{role.label}</option>{/each}
    </Select>
    {#if roles}<span></span>
        <p class="mini -mt-1">
            {roles.roles.filter((role) => role.name === person.role).map((role) => glance(role, roles))}
        </p>{/if}
</div>
{#if person.hasJoined && person.active}<p class="mb-3 text-right">
        <button type="button" class="link" onclick={signOut}>Sign them out everywhere</button>
    </p>{/if}
