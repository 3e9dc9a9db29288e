"""``/api/rigs/{id}/photos``: photographs of labels, tickets, tires and loads, as evidence beside
the fields that they prove.
"""

import datetime
from typing import Annotated

from anyio import CapacityLimiter, to_thread
from fastapi import Depends, Path, Query, Request, Response
from pydantic import BaseModel

from noxel.api.deps import Id, new_router
from noxel.store.models import PhotoRow
from noxel.store.photos import Photos

router = new_router()
PhotoId = Annotated[str, Path(max_length=64, pattern=r"^[\w-]+$")]
_ONE_AT_A_TIME = CapacityLimiter(1)
_KEPT = {"cache-control": "private, max-age=31536000, immutable"}


class PhotoOut(BaseModel):
    """A photograph: what it shows (a part's or a pass's name), and the key of its weigh-in, if it
    belongs to one.
    """

    id: str
    about: str
    weigh_in: str | None
    width: int
    height: int
    added_at: datetime.datetime


def photos_of(request: Request) -> Photos:
    """The photographs of the running application."""
    photos: Photos = request.app.state.photos
    return photos


ThePhotos = Annotated[Photos, Depends(photos_of)]


def _list(photos: Photos, rig_id: str) -> list[PhotoOut]:
    return [
        PhotoOut(
            id=photo.id,
            about=photo.about,
            weigh_in=photo.weigh_in,
            width=photo.width,
            height=photo.height,
            added_at=photo.added_at.replace(tzinfo=datetime.UTC),
        )
        for photo in photos.all(rig_id)
    ]


@router.get("/rigs/{rig_id}/photos")
def list_photos(rig_id: Id, photos: ThePhotos) -> list[PhotoOut]:
    """A rig's photographs."""
    return _list(photos, rig_id)


@router.put(
    "/rigs/{rig_id}/photos/{photo}",
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {
                "application/octet-stream": {"schema": {"type": "string", "format": "binary"}}
            },
        }
    },
)
async def add_photo(
    rig_id: Id,
    photo: PhotoId,
    request: Request,
    photos: ThePhotos,
    about: Annotated[str, Query(max_length=300)],
    weigh_in: Annotated[str | None, Query(max_length=64)] = None,
    visit: Annotated[str | None, Query(max_length=64)] = None,
) -> list[PhotoOut]:
    """Keep a photograph (JPEG, PNG or WebP), scaled down and stripped of position data; sent again,
    it changes nothing.
    """
    data = await request.body()

    def keep() -> list[PhotoOut]:
        from noxel.reader.photos import read_apart  # only who sends one waits for it

        checked = read_apart(data)
        row = PhotoRow(
            id=photo,
            rig_id=rig_id,
            about=about,
            weigh_in=weigh_in,
            visit=visit,
            width=checked.width,
            height=checked.height,
            picture=checked.picture,
            small=checked.small,
        )
        photos.add(row)
        return _list(photos, rig_id)

    return await to_thread.run_sync(keep, limiter=_ONE_AT_A_TIME)


@router.get("/rigs/{rig_id}/photos/{photo}", response_class=Response)
def show_photo(
    rig_id: Id,
    photo: PhotoId,
    photos: ThePhotos,
    small: bool = False,
    turned: Annotated[int, Query(ge=0, le=270, multiple_of=90)] = 0,
) -> Response:
    """One photograph, as JPEG; turned to the left by so many degrees."""
    picture = photos.picture(rig_id, photo, small=small)
    if turned:
        from noxel.reader.photos import turned_left

        picture = turned_left(picture, turned)
    return Response(picture, media_type="image/jpeg", headers=_KEPT)


@router.delete("/rigs/{rig_id}/photos/{photo}")
def drop_photo(rig_id: Id, photo: PhotoId, photos: ThePhotos) -> list[PhotoOut]:
    """Take a photograph away, for good."""
    photos.drop(rig_id, photo)
    return _list(photos, rig_id)
