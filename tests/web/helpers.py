"""How the tests of screens press buttons and read pages."""

import re
import uuid

from tests.web.built_once import built
from wembit.web.figures.models import Figure
from wembit.web.studio.models import Member, Studio


def post(client, address, follow=False, **given):
    """One press in the client's studio, with a key of its own unless one is given."""
    return client.post(client.base + address, {"key": str(uuid.uuid4()), **given}, follow=follow)


def figure_with(client, name, *parts) -> Figure:
    """A figure begun on the screen, with parts by (kind, length) as they are entered."""
    studio = Studio.objects.get(slug=client.base.split("/")[2])
    owner = Member.objects.filter(studio=studio, role="owner").first()

    def begun() -> Figure:
        post(client, "figures/new/", name=name)
        figure = Figure.objects.get(studio=studio, name=name)
        for kind, length in parts:
            post(client, f"figures/{figure.pk}/part/", kind=kind, length=length)
        return figure

    return built(owner, name, (parts, studio.length_unit), begun)


def get(client, address="", **more) -> str:
    """The page as text with single spaces; it has to answer 200."""
    answer = client.get(client.base + address, **more)
    assert answer.status_code == 200, (address, answer.status_code)
    return text(answer)


def text(answer) -> str:
    return re.sub(r"[\s\u202f]+", " ", answer.content.decode())


def words(page: str) -> str:
    """What a reader reads of a page: no tags."""
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", "", page))


def title(page: str) -> str:
    """The heading of a page."""
    return words(page[page.index("<h1") : page.index("</h1>")]).strip()


def told(answer) -> str:
    """What a page that came back says is to be changed."""
    assert answer.status_code == 422, answer.status_code
    return " ".join(re.findall(r'role="alert">([^<]+)<', text(answer)))
