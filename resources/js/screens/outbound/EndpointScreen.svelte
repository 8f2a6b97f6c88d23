<script lang="ts">
    import { Checkbox, Input, Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import CallList from './CallList.svelte';
    import { Kept, type Draft } from '../library/kept.svelte';
    import KeptFrame from '../library/KeptFrame.svelte';
    import { counted, say } from '../../state/words';

    type Endpoint = Draft &
        Pick<Resources['EndpointResource'], 'url' | 'method' | 'timeout' | 'tries' | 'atOnce' | 'perMinute' | 'mayBeInside' | 'headers'> & {
            secretNames: string[];
            isSigned: boolean;
            /** What is typed of secrets; nothing leaves them as they are. */
            secretHeader: string;
            secretValue: string;
            signingSecret: string;
            restsUntil: string | null;
        };

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Other systems' });
    const endpoints = createQuery(() => ({
        queryKey: ['endpoints'],
        queryFn: () => ask(api.GET('/api/endpoints')),
        refetchInterval: 15_000,
    }));
    const kept = new Kept<Endpoint>(useQueryClient(), 'endpoints');
    const fresh = { secretHeader: 'Authorization', secretValue: '', signingSecret: '' };

    const open = (one: Resources['EndpointResource']) =>
        kept.open({ ...fresh, ...one, headers: [...one.headers], secretNames: one.secretHeaders });
    const begin = () =>
        kept.open({
            ...fresh,
            id: null,
            version: 0,
            name: '',
            url: '',
            method: 'POST',
            headers: [],
            secretNames: [],
            isSigned: false,
            timeout: 10,
            tries: 8,
            atOnce: 4,
            perMinute: 120,
            mayBeInside: false,
            restsUntil: null,
        });

    const keep = () =>
        kept.keep<unknown>(
            ({ id, version, secretHeader, secretValue, signingSecret, ...rest }) => {
                const body = {
                    name: rest.name,
                    url: rest.url,
                    method: rest.method,
                    headers: rest.headers,
                    timeout: rest.timeout,
                    tries: rest.tries,
                    atOnce: rest.atOnce,
                    perMinute: rest.perMinute,
                    mayBeInside: rest.mayBeInside,
                    ...(secretValue ? { secretHeaders: [{ name: secretHeader, value: secretValue }] } : {}),
                    ...(signingSecret ? { signingSecret } : {}),
                };
                return id === null
                    ? ask(api.POST('/api/endpoints', { body }))
                    : ask(api.PUT('/api/endpoints/{id}', { params: { path: { id } }, body: { version, ...body } }));
            },
            ({ name }) => `“${name}” is saved.`,
        );
</script>

<KeptFrame
    {kept}
    title="Other systems"
    sub="Addresses that rules call; each try is signed, limited and kept."
    items={endpoints.data}
    fresh="New"
    onnew={begin}
    onopen={open}
    onkeep={() => void keep()}
    ondelete={() => void kept.delete((id) => ask(api.DELETE('/api/endpoints/{id}', { params: { path: { id } } })))}
    none={['No other system is known yet.', 'Name an address once; rules hand it data with the line “Call another system”.']}
    idle={['Calls wait here when they fail.', 'Choose a system to see what went there, to mend it and to send it again.']}
    loses="An endpoint that a rule calls, or to which calls are on their way, cannot be deleted."
>
    {#snippet row(one)}
        <span class="flex items-baseline gap-3">
            <b class="min-w-0 flex-1 font-semibold">{one.name}</b>
            {#if one.failed}<span class="figures text-[12px] text-madder"
                    >{counted(one.failed, ['# call given up', '# calls given up'])}</span
                >{/if}
            {#if one.waiting}<span class="figures text-[12px] text-marigold">{one.waiting} on the way</span>{/if}
        </span>
        <span class="mini block truncate">{one.method} {one.url}</span>
        {#if one.restsUntil}<span class="block text-marigold">It rests until {moment(one.restsUntil)}: too many failures in a row.</span
            >{/if}
        <span class="mini block">{one.rules.length ? `called by ${one.rules.join(', ')}` : 'no rule calls it'}</span>
    {/snippet}
    {#snippet editor(edited)}
        <div class="grid grid-cols-[120px_1fr] items-center gap-x-3 gap-y-2">
            <label for="url">Address</label>
            <span class="flex gap-2">
                <Select placeholder="" class="w-24" aria-label="Method" bind:value={edited.method}
                    >{#each ['POST', 'PUT', 'PATCH', 'DELETE', 'GET'] as method (method)}<option>{method}</option>{/each}</Select
                >
                <Input
                    id="url"
                    placeholder="https://books.example/customers"
                    bind:value={edited.url}
                    aria-invalid={kept.problem('/url') ? true : undefined}
                />
            </span>
            <span>Secret header</span>
            <span class="flex items-center gap-2">
                <Input class="w-40!" aria-label="Name of the secret header" bind:value={edited.secretHeader} />
                <Input
                    type="password"
                    autocomplete="new-password"
                    aria-label="Its value"
                    placeholder={edited.secretNames.length ? 'saved; type to replace it' : say('none')}
                    bind:value={edited.secretValue}
                />
            </span>
            <label for="signing">Signed with</label>
            <Input
                id="signing"
                type="password"
                autocomplete="new-password"
                placeholder={edited.isSigned ? 'saved; type to replace it' : 'whsec_… (Standard Webhooks)'}
                bind:value={edited.signingSecret}
                aria-invalid={kept.problem('/signingSecret') ? true : undefined}
            />
            <span>Limits</span>
            <span class="flex flex-wrap items-center gap-1.5">
                <Input class="w-14!" type="number" min="1" max="60" aria-label="Seconds" bind:value={edited.timeout} /> s each,
                <Input class="w-14!" type="number" min="1" max="20" aria-label="Tries" bind:value={edited.tries} /> tries,
                <Input class="w-14!" type="number" min="1" max="50" aria-label="At once" bind:value={edited.atOnce} /> at once,
                <Input class="w-18" type="number" min="1" max="6000" aria-label="A minute" bind:value={edited.perMinute} /> a minute
            </span>
            <span></span>
            <label class="flex items-center gap-2"><Checkbox bind:checked={edited.mayBeInside} /> its host may lie inside our network</label
            >
        </div>
        {#if edited.id !== null}{#key edited.id}<CallList endpoint={edited.name} />{/key}{/if}
    {/snippet}
</KeptFrame>
