<script lang="ts">
    import { api, ask, said, type Resources } from '../../api/client';
    import Area from '../../parts/fields/Area.svelte';
    import FileButton from '../../parts/fields/FileButton.svelte';
    import { counted, say } from '../../state/words';

    /* A list of people from a table: read first, with what is wrong by line; then all of them are invited. */
    let { ondone, oncancel }: { ondone: (count: number) => void; oncancel: () => void } = $props();
    let text = $state('');
    let read = $state.raw<Resources['PeopleRead'] | null>(null);
    let problem = $state('');
    let busy = $state(false);

    /* Whoever types is waited for, and of several answers only that to the latest list counts. */
    let asked = 0;

    async function look(given: string) {
        const mine = ++asked;
        text = given;
        read = null;
        problem = '';
        await new Promise((done) => setTimeout(done, 250));
        if (mine !== asked || !given.trim()) return;
        try {
            const answer = await ask(api.POST('/api/people/list/read', { body: { text: given } }));
            if (mine === asked) read = answer;
        } catch (thrown) {
            if (mine === asked) problem = said(thrown);
        }
    }

    async function take(file: File) {
        await look(await file.text());
    }

    async function invite(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        problem = '';
        try {
            await ask(api.POST('/api/people/list', { body: { text } }));
            ondone(read?.people.length ?? 0);
        } catch (thrown) {
            problem = said(thrown);
        }
        busy = false;
    }
</script>

<header>
    <h2 class="title text-[21px]!">Invite many</h2>
    <p class="sub">From a table (CSV): its first line names the columns.</p>
</header>
<form class="scroll grid content-start gap-3 px-7 py-4 text-[13px]" onsubmit={invite}>
    <div><FileButton says="Choose a file" accept=".csv,text/csv,text/plain" onchoose={take} /></div>
    <label class="grid gap-0.5 font-semibold"
        >Or the list itself
        <Area
            class="figures h-32 text-[12px] font-normal"
            placeholder={'name,email,role,team,manager\nKim Noor,kim@example.com,member,Service,ada@example.com'}
            value={text}
            oninput={(event) => void look(event.currentTarget.value)}
        /></label
    >
    {#if problem}<p class="callout bad" role="alert">{problem}</p>{/if}
    {#if read?.problems.length}
        <div class="callout bad" role="alert">
            {counted(read.problems.length, ['# thing to mend first:', '# things to mend first:'])}
            <ul class="mt-1 list-disc pl-5">
                {#each read.problems.slice(0, 12) as one, index (index)}<li>{one}</li>{/each}
            </ul>
        </div>
    {:else if read}
        <div>
            {#each read.people.slice(0, 8) as one, index (index)}
                <div class="grid grid-cols-[1fr_1.4fr_90px] gap-3 border-b border-ruled py-1">
                    <span class="truncate font-medium">{one.name}</span><span class="truncate text-ink-2">{one.email}</span><span
                        class="mini">{one.role || say('member')}</span
                    >
                </div>
            {/each}
            {#if read.people.length > 8}<p class="mini mt-1">and {read.people.length - 8} more</p>{/if}
        </div>
    {/if}
    <div class="flex gap-2">
        <button class="btn go" disabled={busy || !read || read.problems.length > 0}
            >{read && !read.problems.length ? counted(read.people.length, ['Invite # person', 'Invite # people']) : 'Invite them'}</button
        >
        <button type="button" class="btn quiet" onclick={oncancel}>Not now</button>
    </div>
</form>
