<script lang="ts">
    import { Checkbox, Select } from 'flowbite-svelte';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import { session } from '../../state/session.svelte';
    import { EVERY_OTHER, fileOf, SHORT } from './roles';
    import { counted } from '../../state/words';

    /* One role: whose records each act reaches, what it is trusted with, and which fields are kept from it. */
    type Props = {
        offers: Resources['RolesResource'];
        role: Resources['RoleResource'] | null;
        onkept: (name: string | null, told: string) => void;
        oncancel: () => void;
    };
    let { offers, role, onkept, oncancel }: Props = $props();
    // svelte-ignore state_referenced_locally
    let file = $state(fileOf(role));
    let differs = $state<string[]>([]);
    let refusal = $state.raw<Refusal | null>(null);
    let problem = $state('');
    let added = $state({ type: '', field: '', access: 'hidden' });
    const may = $derived(session.has('keep_house') && !role?.isFixed);
    const types = $derived(session.schema?.types ?? []);
    const named = $derived(Object.keys(file.reaches).filter((name) => name !== EVERY_OTHER && types.some((type) => type.name === name)));
    const rest = $derived(types.filter((type) => !named.includes(type.name)));
    const hidden = $derived(
        Object.entries(file.fields).flatMap(([type, of]) => Object.entries(of).map(([field, access]) => ({ type, field, access }))),
    );
    const offered = $derived(
        types.find((type) => type.name === added.type)?.fields.filter((field) => !file.fields[added.type]?.[field.name]) ?? [],
    );
    const pluralOf = (name: string) => types.find((type) => type.name === name)?.plural ?? name;

    // What would change is said while it is being chosen.
    $effect(() => {
        const wanted = $state.snapshot(file);
        if (!may || wanted.label.trim() === '') return;
        const timer = setTimeout(async () => {
            try {
                const path = { role: role?.name ?? 'new' };
                differs = (await ask(api.POST('/api/roles/{role}/difference', { params: { path }, body: { file: wanted } }))).said;
                [refusal, problem] = [null, ''];
            } catch (thrown) {
                if (thrown instanceof Refusal) refusal = thrown;
                else problem = said(thrown);
                differs = [];
            }
        }, 200);
        return () => clearTimeout(timer);
    });

    /** Whether everything in the other reach is in this one. */
    const holds = (reach: string, other: string) => reach === other || reach === 'all' || (other === 'own' && reach !== 'none');

    function set(type: string, act: string, reach: string) {
        const of = { ...file.reaches[type], [act]: reach };
        // Nobody acts on what they do not see: what is seen takes the rest with it.
        const seen = of['read'] ?? 'none';
        const kept = Object.entries(of).map(([one, its]) => [one, holds(seen, its) ? its : seen]);
        file.reaches[type] = Object.fromEntries(kept.filter(([, its]) => its !== 'none'));
    }

    function give(type: string, own: boolean) {
        if (own) file.reaches[type] = { ...file.reaches[EVERY_OTHER] };
        else delete file.reaches[type];
    }

    function setField(type: string, field: string, access: string) {
        const of = { ...file.fields[type] };
        if (access === 'full') delete of[field];
        else of[field] = access;
        file.fields[type] = of;
    }

    async function run(act: () => Promise<string | null>, told: string) {
        [refusal, problem] = [null, ''];
        try {
            onkept(await act(), told);
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            problem = said(thrown);
        }
    }

    const keep = () =>
        run(async () => {
            const body = $state.snapshot(file);
            if (!role) return (await ask(api.POST('/api/roles', { body: { file: body } }))).name;
            const path = { role: role.name };
            return (await ask(api.PUT('/api/roles/{role}', { params: { path }, body: { version: role.version, file: body } }))).name;
        }, `${file.label} is saved. It holds from the next request of everybody who has it.`);

    const remove = () =>
        run(async () => {
            await ask(api.DELETE('/api/roles/{role}', { params: { path: { role: role?.name ?? '' } } }));
            return null;
        }, `${role?.label} is removed.`);

    const REACH = 'reach min-h-7 cursor-pointer appearance-none px-1.5 py-[3px] text-[12px] text-ellipsis';
    /** How far a right reaches, as the colour of its cell says besides the word. */
    const TONES: Record<string, string> = {
        none: 'text-ink-3 border-ruled',
        all: 'bg-fern-wash text-fern',
        own: 'bg-iris-wash text-iris',
    };
</script>

{#snippet cells(type: string)}
    {#each offers.acts as act (act.kind)}
        {@const reach = file.reaches[type]?.[act.kind] ?? 'none'}
        <Select
            placeholder=""
            size="sm"
            classes={{
                select: `${REACH} ${TONES[reach] ?? TONES.own}`,
            }}
            aria-label="{type === EVERY_OTHER ? 'All other records' : pluralOf(type)}: {act.label}"
            aria-invalid={refusal?.at(`/reaches/${type}/${act.kind}`) ? 'true' : undefined}
            disabled={!may}
            value={reach}
            onchange={(event) => set(type, act.kind, event.currentTarget.value)}
        >
            {#each offers.reaches as one (one.kind)}<option value={one.kind}>{one.label}</option>{/each}
        </Select>
    {/each}
{/snippet}

<header class="flex items-start gap-3">
    <div class="min-w-0 flex-1">
        {#if may}
            <input
                class="rule-name"
                aria-label="Name of the role"
                placeholder="Name this role"
                maxlength="60"
                value={file.label}
                oninput={(event) => (file.label = event.currentTarget.value)}
            />
        {:else}<h2 class="title text-[21px]!">{role?.label}</h2>{/if}
        <p class="sub">
            {role?.isFixed
                ? 'May do everything, always: so nobody shuts the company out of its own house.'
                : role
                  ? counted(role.people, ['# person has this role.', '# people have this role.'])
                  : 'Nobody has it yet.'}
        </p>
    </div>
    {#if may && role && role.people === 0}<button type="button" class="btn quiet danger" onclick={remove}>Remove</button>{/if}
</header>
<div class="scroll px-7 py-4 text-[13px]">
    {#if problem}<p class="callout bad mb-3" role="alert">{problem}</p>{/if}
    <h3 class="mb-1 font-semibold">Records</h3>
    <div class="rights" role="group" aria-label="Whose records">
        <span></span>{#each offers.acts as act (act.kind)}<span class="mini" title={act.label}>{SHORT[act.kind] ?? act.label}</span
            >{/each}<span></span>
        {#each named as name (name)}
            <b class="truncate font-medium">{pluralOf(name)}</b>
            {@render cells(name)}
            {#if may}<button type="button" class="icon" aria-label="{pluralOf(name)} like all others" onclick={() => give(name, false)}
                    >×</button
                >{:else}<span></span>{/if}
        {/each}
        <b class="truncate font-medium">{named.length ? 'All others' : 'All records'}</b>
        {@render cells(EVERY_OTHER)}<span></span>
    </div>
    {#each new Set((refusal?.problem.problems ?? [])
            .filter((one) => one.at.startsWith('/reaches'))
            .map((one) => one.message)) as message (message)}
        <p class="note-wrong mt-1" role="alert">{message}</p>
    {/each}
    {#if may && rest.length}
        <Select
            placeholder=""
            class="mt-2 w-auto"
            aria-label="Give a record type rights of its own"
            value=""
            onchange={(event) => {
                give(event.currentTarget.value, true);
                event.currentTarget.value = '';
            }}
        >
            <option value="">Rights of their own for…</option>
            {#each rest as type (type.name)}<option value={type.name}>{type.plural}</option>{/each}
        </Select>
    {/if}

    <h3 class="mt-6 mb-1 font-semibold">Fields</h3>
    {#each hidden as one (`${one.type} ${one.field}`)}
        <div class="flex items-center gap-3 border-b border-ruled py-1.5">
            <span class="min-w-0 flex-1 truncate"
                >{pluralOf(one.type)} <span class="text-ink-3">›</span>
                {session.schema?.types.find((type) => type.name === one.type)?.fields.find((field) => field.name === one.field)?.label ??
                    one.field}</span
            >
            <Select
                placeholder=""
                class="w-44"
                aria-label="What they may do with {one.field}"
                disabled={!may}
                value={one.access}
                onchange={(event) => setField(one.type, one.field, event.currentTarget.value)}
            >
                {#each offers.accesses as access (access.kind)}<option value={access.kind}>{access.label}</option>{/each}
            </Select>
        </div>
        {#if refusal?.at(`/fields/${one.type}/${one.field}`)}<p class="note-wrong" role="alert">
                {refusal.at(`/fields/${one.type}/${one.field}`)}
            </p>{/if}
    {:else}<p class="text-ink-2">Every field of the records they see is seen, and changed where they change the record.</p>{/each}
    {#if may}
        <div class="mt-2 flex flex-wrap items-center gap-2">
            <Select placeholder="" class="w-52" aria-label="Of which records" bind:value={added.type}>
                <option value="">Keep a field from them…</option>
                {#each types as type (type.name)}<option value={type.name}>{type.plural}</option>{/each}
            </Select>
            {#if added.type}
                <Select placeholder="" class="w-44" aria-label="Which field" bind:value={added.field}>
                    <option value="">which?</option>
                    {#each offered as field (field.name)}<option value={field.name}>{field.label}</option>{/each}
                </Select>
                <Select placeholder="" class="w-44" aria-label="How far" bind:value={added.access}>
                    {#each offers.accesses.filter((one) => one.kind !== 'full') as access (access.kind)}<option value={access.kind}
                            >{access.label}</option
                        >{/each}
                </Select>
                <button
                    type="button"
                    class="btn"
                    disabled={!added.field}
                    onclick={() => {
                        setField(added.type, added.field, added.access);
                        added = { ...added, field: '' };
                    }}>Keep it from them</button
                >
            {/if}
        </div>
    {/if}

    <h3 class="mt-6 mb-1 font-semibold">Other duties</h3>
    {#each offers.duties as duty (duty.kind)}
        {@const has = role?.isFixed || file.duties.includes(duty.kind)}
        <label class="flex items-baseline gap-2 py-1">
            <Checkbox
                disabled={!may}
                checked={has}
                onchange={(event) =>
                    (file.duties = event.currentTarget.checked
                        ? [...file.duties, duty.kind]
                        : file.duties.filter((one) => one !== duty.kind))}
            />
            <span>{duty.label}</span>
        </label>
        {@const wrong = refusal?.at(`/duties/${file.duties.indexOf(duty.kind)}`)}
        {#if has && wrong}<p class="note-wrong pl-6" role="alert">{wrong}</p>{/if}
    {/each}
</div>
{#if may && (differs.length || !role)}
    <footer class="flex items-start gap-3 border-t border-ruled px-7 py-3">
        <div class="max-h-28 min-w-0 flex-1 overflow-auto text-[12.5px] text-ink-2" aria-live="polite">
            {#each differs as line (line)}<div>{line}</div>{/each}
        </div>
        <button type="button" class="btn quiet" onclick={oncancel}>Not now</button>
        <button type="button" class="btn go" disabled={refusal !== null || file.label.trim() === ''} onclick={keep}>Save</button>
    </footer>
{/if}
