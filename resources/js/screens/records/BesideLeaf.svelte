<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { upload } from '../../api/upload';
    import FileButton from '../../parts/fields/FileButton.svelte';
    import { counted, say, within } from '../../state/words';

    /* Files, who follows the record, and what repeat guards have used up for it. */
    let { type, id, may }: { type: Resources['TypeResource']; id: number; may: boolean } = $props();
    const client = useQueryClient();
    const beside = createQuery(() => ({
        queryKey: ['beside', type.name, id],
        queryFn: () => ask(api.GET('/api/records/{type}/{id}/beside', { params: { path: { type: type.name, id } } })),
    }));
    const follows = $derived(beside.data?.followers.some((follower) => follower.id === session.me?.id) ?? false);
    let resetting = $state<Resources['GuardResource'] | null>(null);
    let why = $state('');
    let busy = $state(false);

    async function add(file: File) {
        const most = session.me?.fileBytes ?? Infinity;
        if (file.size > most)
            return toasts.complain(`A file has at most ${most / 1e6} MB, and ‘${file.name}’ has ${(file.size / 1e6).toFixed(1)} MB.`);
        busy = true;
        try {
            await upload(`/api/records/${type.name}/${id}/files`, file);
            void client.invalidateQueries();
        } catch (thrown) {
            toasts.complain(thrown instanceof Refusal ? thrown.message : said(thrown));
        }
        busy = false;
    }

    async function follow() {
        try {
            await ask(
                api.POST('/api/records/{type}/{id}/follow', { params: { path: { type: type.name, id } }, body: { follows: !follows } }),
            );
            void beside.refetch();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    async function reset() {
        const guard = resetting;
        resetting = null;
        if (!guard) return;
        try {
            await ask(
                api.POST('/api/records/{type}/{id}/guards/{number}', {
                    params: { path: { type: type.name, id, number: guard.rule } },
                    body: { why },
                }),
            );
            why = '';
            void client.invalidateQueries();
            toasts.tell(`${guard.name} can fire again for this ${within(type.label)}.`);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
    const size = (bytes: number) =>
        bytes < 1000 ? `${bytes} B` : bytes < 1e6 ? `${Math.round(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
</script>

<div class="scroll px-6 py-4 text-[13px]">
    <div class="flex items-center">
        <h2>Files</h2>
        {#if may}
            <span class="ml-auto"><FileButton says={busy ? 'Adding…' : 'Add a file'} {busy} onchoose={add} /></span>
        {/if}
    </div>
    {#each beside.data?.files ?? [] as file (file.id)}
        <div class="flex items-baseline gap-3 border-b border-ruled py-1.5">
            {#if ['image/png', 'image/jpeg', 'image/gif', 'image/webp'].includes(file.mediaType)}
                <a class="shrink-0 self-center" href="/api/files/{file.id}/picture" target="_blank" rel="noopener"
                    ><img class="size-14 rounded border border-edge object-cover" src="/api/files/{file.id}/picture" alt={file.name} /></a
                >
            {/if}
            <a class="link min-w-0 flex-1 truncate" href="/api/files/{file.id}" download>{file.name}</a>
            <span class="figures mini">{size(file.bytes)}</span>
            <span class="mini">{file.author}, {moment(file.at)}</span>
        </div>
    {:else}<p class="mini mt-1">No file yet.</p>{/each}

    <div class="mt-6 flex items-center">
        <h2>Followed by</h2>
        <button type="button" class="btn ml-auto" onclick={follow}>{follows ? 'Follow no more' : 'Follow'}</button>
    </div>
    <p class="mt-1">
        {#each beside.data?.followers ?? [] as follower, index (follower.id)}{index ? ', ' : ''}<span class="word person"
                >{follower.name}</span
            >{:else}<span class="mini">Nobody yet. Rules can write to whoever follows a record.</span>{/each}
    </p>

    <h2 class="mt-6">Repeat guards used</h2>
    {#each beside.data?.guards ?? [] as guard (guard.rule)}
        <div class="flex items-center gap-3 border-b border-ruled py-2">
            <div class="min-w-0 flex-1">
                <a class="font-semibold hover:text-iris" href="/rules/{guard.rule}">{guard.name}</a>
                <div class="mini">
                    fires {guard.fires} · {counted(guard.count, ['fired once', 'fired # times'])}{guard.lastFired
                        ? `, last ${moment(guard.lastFired)}`
                        : ''}
                </div>
            </div>
            <Stamp tone={guard.holds ? 'marigold' : 'fern'}>{guard.holds ? 'used up' : say('ready')}</Stamp>
            {#if session.me?.mayEditRules && guard.count > 0}<button type="button" class="btn" onclick={() => (resetting = guard)}
                    >Make ready again…</button
                >{/if}
        </div>
    {:else}<p class="mini mt-1">No rule that remembers has fired for this {within(type.label)}.</p>{/each}
</div>

{#if resetting}
    <Confirm title="Make “{resetting.name}” ready again?" go="Make it ready" onconfirm={reset} onclose={() => (resetting = null)}>
        <p>It can then fire again for this {within(type.label)}. The ledger keeps who did this, and why.</p>
        <Input aria-label="Why" placeholder="Why" maxlength={200} bind:value={why} />
    </Confirm>
{/if}
