<script lang="ts">
    import type { Shapes } from '../../api/client';
    import { ROLES } from './roles';

    const FIELDS = [
        ['name', 'Name', 'text'],
        ['email', 'E-mail address', 'email'],
        ['team', 'Team', 'text'],
    ] as const;

    /* Who somebody is: what they are called, where they belong, what they may do. */
    let {
        person,
        teams,
        onchange,
        oninvite,
    }: {
        person: Shapes['PersonShape'];
        teams: string[];
        onchange: (body: Record<string, unknown>) => void;
        oninvite: () => void;
    } = $props();
</script>

{#if !person.hasJoined}
    <div class="callout mb-3 flex items-center gap-3">
        <span class="flex-1">{person.name} is invited and has not come in yet.</span>
        <button type="button" class="btn" onclick={oninvite}>Send it again</button>
    </div>
{/if}
<div class="mb-2 grid grid-cols-[130px_1fr] items-center gap-x-3 gap-y-2">
    {#each FIELDS as [member, label, type] (member)}
        <label for="person-{member}">{label}</label>
        <input
            id="person-{member}"
            class="input"
            {type}
            list={member === 'team' ? 'known-teams' : undefined}
            value={person[member]}
            onchange={(event) => onchange({ [member]: event.currentTarget.value.trim() })}
        />
    {/each}
    <datalist id="known-teams"
        >{#each teams as team (team)}<option value={team}></option>{/each}</datalist
    >
    <label for="person-role">Role</label>
    <select id="person-role" class="input" value={person.role} onchange={(event) => onchange({ role: event.currentTarget.value })}>
        {#each Object.entries(ROLES) as [role, says] (role)}<option value={role}>{role}: {says}</option>{/each}
    </select>
</div>
