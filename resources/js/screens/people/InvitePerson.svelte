<script lang="ts">
    import { Input, Radio, Select } from 'flowbite-svelte';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import { glance } from '../access/roles';

    /* Somebody who is to come in: a letter brings them a link by which they choose their password. */
    let {
        people,
        roles,
        teams,
        ondone,
        oncancel,
    }: {
        people: Resources['PersonResource'][];
        roles: Resources['RolesResource'] | null;
        teams: string[];
        ondone: (made: Resources['PersonResource']) => void;
        oncancel: () => void;
    } = $props();
    let given = $state({ name: '', email: '', role: 'member', team: '', managerId: '' });
    let refusal = $state.raw<Refusal | null>(null);
    let problem = $state('');
    let busy = $state(false);

    async function invite(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        refusal = null;
        problem = '';
        const { managerId, ...rest } = given;
        try {
            ondone(await ask(api.POST('/api/people', { body: { ...rest, ...(managerId ? { managerId: Number(managerId) } : {}) } })));
        } catch (thrown) {
            if (thrown instanceof Refusal && thrown.problem.problems.length) refusal = thrown;
            else problem = said(thrown);
        }
        busy = false;
    }
</script>

<header>
    <h2 class="title text-[21px]!">Invite somebody</h2>
    <p class="sub">A letter brings them a link by which they choose their password.</p>
</header>
<form class="scroll grid content-start gap-3 px-7 py-4 text-[13px]" onsubmit={invite}>
    {#each [['name', 'Name', 'text'], ['email', 'E-mail address', 'email']] as const as [member, label, type] (member)}
        <label class="grid gap-0.5 font-semibold"
            >{label}
            <Input class="font-normal" {type} required maxlength={120} bind:value={given[member]} />
            {#if refusal?.at(`/${member}`)}<span class="note-wrong font-normal" role="alert">{refusal.at(`/${member}`)}</span>{/if}</label
        >
    {/each}
    <fieldset>
        <legend class="font-semibold">What they may do</legend>
        {#each roles?.roles ?? [] as role (role.name)}
            <Radio name="role" value={role.name} bind:group={given.role} classes={{ label: 'py-1' }}>
                <span><b>{role.label}</b> <span class="text-ink-2">{roles ? glance(role, roles) : ''}</span></span>
            </Radio>
        {/each}
    </fieldset>
    <label class="grid gap-0.5 font-semibold"
        >Team <Input class="font-normal" list="teams" maxlength={80} placeholder="none yet" bind:value={given.team} /></label
    >
    <datalist id="teams"
        >{#each teams as team (team)}<option value={team}></option>{/each}</datalist
    >
    <label class="grid gap-0.5 font-semibold"
        ><span>Manager</span>
        <Select placeholder="" class="font-normal" bind:value={given.managerId}>
            <option value="">nobody</option>
            {#each people.filter((one) => one.active) as person (person.id)}<option value={String(person.id)}
                    >{person.name}{person.team ? `, ${person.team}` : ''}</option
                >{/each}
        </Select></label
    >
    {#if problem}<p class="callout bad" role="alert">{problem}</p>{/if}
    <div class="flex gap-2">
        <button class="btn go" disabled={busy}>Send the invitation</button>
        <button type="button" class="btn quiet" onclick={oncancel}>Not now</button>
    </div>
</form>
